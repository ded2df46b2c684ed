"""What a recipe declares, as plain values: for lists that programs read."""

from kavlet.core.recipes.recipe import QUESTIONS, Parameter, Recipe


def declared(one: Recipe) -> dict[str, object]:
    """Name, question, roles, parameters with their meaning, default and span, and helper columns of a recipe."""
    return {
        "name": one.name,
        "title": one.title,
        "question": QUESTIONS[one.question],
        "needs": one.needs,
        "roles": [
            {"name": r.name, "type": r.kind, "required": r.required, "many": r.many, "meaning": r.meaning}
            for r in one.roles
        ],
        "parameters": [_parameter(parameter) for parameter in one.parameters],
        "helpers": [{"name": helper.name, "meaning": helper.meaning} for helper in one.helpers],
    }


def _parameter(one: Parameter) -> dict[str, object]:
    allowed: object = list(one.choices) if one.type == "choice" else None
    if one.type == "number":
        allowed = [one.minimum, one.maximum]
    default: object = None if one.optional and one.default == "" else one.default
    return {
        "name": one.name, "type": one.type, "default": default, "range": allowed,
        "unit": one.unit, "meaning": one.meaning,
    }  # fmt: skip
