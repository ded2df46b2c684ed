"""What a recipe declares, as plain values: for lists that programs read."""

from kavlet.core.recipes.recipe import QUESTIONS, Parameter, Recipe


def declared(recipe: Recipe) -> dict[str, object]:
    """Name, question, roles, parameters with their meaning, default and span, and helper columns of a recipe."""
    return {
        "name": recipe.name,
        "title": recipe.title,
        "question": QUESTIONS[recipe.question],
        "needs": recipe.needs,
        "roles": [
            {"name": r.name, "type": r.kind, "required": r.required, "many": r.many, "meaning": r.meaning}
            for r in recipe.roles
        ],
        "parameters": [_parameter(parameter) for parameter in recipe.parameters],
        "helpers": [{"name": helper.name, "meaning": helper.meaning} for helper in recipe.helpers],
    }


def _parameter(parameter: Parameter) -> dict[str, object]:
    allowed: object = list(parameter.choices) if parameter.type == "choice" else None
    if parameter.type == "number":
        allowed = [parameter.minimum, parameter.maximum]
    default: object = None if parameter.optional and parameter.default == "" else parameter.default
    return {
        "name": parameter.name, "type": parameter.type, "default": default, "range": allowed,
        "unit": parameter.unit, "meaning": parameter.meaning,
    }  # fmt: skip
