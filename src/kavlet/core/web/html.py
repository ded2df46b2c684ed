"""One HTML file: pictures as inline SVG on light and dark ground, their figures as tables, steps that can be gone
through.

It asks for nothing from elsewhere, and says so to the browser: its content policy (W3C Content Security Policy 3)
allows its own style and script by their digests, faces and pictures that it holds, and nothing else. The script does no
more than show one step of several, and one ground of two; without it, the first step is seen and all figures are there.
"""

import base64
import hashlib
from collections.abc import Sequence
from html import escape

import msgspec
from msgspec import Struct

from kavlet.core.files import svg
from kavlet.core.messages import words_in
from kavlet.core.office_model.figure_table import FigureTable
from kavlet.core.scene.primitives import Scene


class WebStep(Struct, frozen=True):
    """One of the pictures a sheet goes through: its name, and its scene on light and on dark ground."""

    name: str
    light: Scene
    dark: Scene


class WebPage(Struct, frozen=True):
    """A chart or page: what it is called, its steps (one where it does not step), its figures, and in `described` all
    that its charts show, in words."""

    name: str
    steps: tuple[WebStep, ...]
    figures: tuple[FigureTable, ...] = ()
    described: tuple[str, ...] = ()


STYLE = """
:root{color-scheme:light;--ground:#fbfaf7;--ink:#20272e;--quiet:#5b646c;--line:#d9d5cc;--sheet:#fff}
:root[data-ground=dark]{color-scheme:dark;--ground:#15191d;--ink:#e8e6e1;--quiet:#a2a9b0;--line:#353c43;--sheet:#1b2026}
*{box-sizing:border-box}
body{margin:0;background:var(--ground);color:var(--ink);font:16px/1.5 "Fira Sans",system-ui,sans-serif}
header,main{max-width:72rem;margin:0 auto;padding:1.5rem 1.25rem}
header{display:flex;gap:1rem;align-items:baseline;justify-content:space-between;padding-bottom:0}
h1{font-size:1.25rem;font-weight:700;margin:0}
button{font:inherit;color:inherit;background:none;border:1px solid var(--line);border-radius:6px;padding:.3rem .8rem}
button:hover{border-color:var(--quiet)}
:focus-visible{outline:3px solid #7a5bd0;outline-offset:2px}
figure{margin:0 0 2.5rem}
svg{display:block;width:100%;height:auto;border-radius:4px}
.narrow svg{max-width:48rem;margin:0 auto}
.dark,.step{display:none}
.step.now{display:block}
:root[data-ground=dark] .light{display:none}
:root[data-ground=dark] .dark{display:block}
.steps{display:flex;gap:.75rem;align-items:center;margin:.75rem 0;max-width:48rem}
.narrow .steps{margin-inline:auto}
.steps input{flex:1}
.steps output{min-width:6rem;font-weight:700}
figcaption{color:var(--quiet);font-size:.9rem;margin-top:.75rem}
summary{cursor:pointer}
table{border-collapse:collapse;margin:.5rem 0 1rem;color:var(--ink)}
caption{text-align:start;font-weight:700;padding:.25rem 0}
th,td{text-align:start;padding:.2rem 1.25rem .2rem 0;border-bottom:1px solid var(--line)}
table,.figures{font-variant-numeric:tabular-nums}
td.n,th.n{text-align:end}
@media print{
:root,:root[data-ground=dark]{--ground:#fff;--ink:#000;--quiet:#333;--line:#999}
:root[data-ground=dark] .light{display:block}.dark,:root[data-ground=dark] .dark{display:none}
header button,.steps{display:none}
body{font-size:10pt}main,header{max-width:none;padding:0}
figure{break-inside:avoid;break-after:page}figure:last-child{break-after:auto}
}
""".strip()

SCRIPT = """
(function(){
var root=document.documentElement,ground=document.getElementById('ground');
var asked=window.matchMedia&&window.matchMedia('(prefers-color-scheme: dark)');
function show(dark){root.dataset.ground=dark?'dark':'light';ground.setAttribute('aria-pressed',dark?'true':'false')}
show(root.dataset.ground==='dark'||!!(asked&&asked.matches));
ground.hidden=false;
ground.addEventListener('click',function(){show(root.dataset.ground!=='dark')});
document.querySelectorAll('figure[data-steps]').forEach(function(figure){
var steps=figure.querySelectorAll('.step'),slider=figure.querySelector('input'),said=figure.querySelector('output');
var names=JSON.parse(figure.dataset.steps);
function go(to){to=Math.max(0,Math.min(names.length-1,to));
steps.forEach(function(one,i){one.classList.toggle('now',i===to)});
slider.value=to;slider.setAttribute('aria-valuetext',names[to]);said.textContent=names[to]}
figure.querySelector('.steps').hidden=false;
slider.addEventListener('input',function(){go(+slider.value)});
figure.querySelector('.before').addEventListener('click',function(){go(+slider.value-1)});
figure.querySelector('.after').addEventListener('click',function(){go(+slider.value+1)});
figure.addEventListener('keydown',function(event){
if(event.target===slider)return;
if(event.key==='ArrowLeft')go(+slider.value-1);else if(event.key==='ArrowRight')go(+slider.value+1);
else if(event.key==='Home')go(0);else if(event.key==='End')go(names.length-1);else return;event.preventDefault()});
go(+slider.value)});
})();
""".strip()

WIDE = 620.0  # points; what is wider takes the whole width


def _digest(text: str) -> str:
    return "sha256-" + base64.b64encode(hashlib.sha256(text.encode()).digest()).decode()


def policy(style: str) -> str:
    """What the browser may do for the file: show what it holds, and run its own script."""
    return (
        f"default-src 'none'; style-src '{_digest(style)}'; script-src '{_digest(SCRIPT)}'; "
        "img-src data:; font-src data:; base-uri 'none'; form-action 'none'"
    )


def dumps(sheets: Sequence[WebPage], title: str, language: str, dark: bool = False) -> str:
    """The file's text. `language` is the locale of what is said; `dark` the ground it begins with."""
    used: svg.Used = {}
    body = [_figure(sheet, number, language, used) for number, sheet in enumerate(sheets, 1)]
    style = f"{STYLE}\n{svg.fonts(used)}"
    say = escape(words_in(language, "Dark ground"))
    ground = ' data-ground="dark"' if dark else ""
    return "\n".join([
        "<!doctype html>",
        f'<html lang="{escape(language.replace("_", "-"))}"{ground}>',
        "<head>",
        '<meta charset="utf-8">',
        f'<meta http-equiv="Content-Security-Policy" content="{escape(policy(style))}">',
        '<meta name="viewport" content="width=device-width, initial-scale=1">',
        '<meta name="referrer" content="no-referrer">',
        f"<title>{_text(title)}</title>",
        f"<style>{style}</style>",
        "</head>",
        "<body>",
        f'<header><h1>{_text(title)}</h1><button id="ground" type="button" hidden>{say}</button></header>',
        "<main>",
        *body,
        "</main>",
        f"<script>{SCRIPT}</script>",
        "</body>",
        "</html>\n",
    ])  # fmt: skip


def _figure(sheet: WebPage, number: int, language: str, used: svg.Used) -> str:
    several = len(sheet.steps) > 1
    wide = max(step.light.size.width for step in sheet.steps)
    names = escape(msgspec.json.encode([step.name for step in sheet.steps]).decode())
    steps = f' data-steps="{names}" tabindex="0"' if several else ""
    long = f' aria-describedby="sheet-{number}-long"' if sheet.described else ""
    lines = [f'<figure id="sheet-{number}"{"" if wide > WIDE else " class=narrow"}{steps}{long}>']
    for place, step in enumerate(sheet.steps):
        pictures = []
        for ground, scene in (("light", step.light), ("dark", step.dark)):
            named_scene = msgspec.structs.replace(scene, name=f"{ground[0]}{number}-{place}")
            svg_text = svg.inline(named_scene, used).replace(f"{svg.FONTS}\n", "", 1)
            svg_text = svg_text.replace(svg.TABULAR, ' class="figures"')  # the policy allows no styles at elements
            pictures.append(f'<div class="{ground}">{svg_text}</div>')
        now = " now" if place == 0 else ""
        lines.append(f'<div class="step{now}">{"".join(pictures)}</div>')
    if several:
        lines.append(_slider(sheet, language))
    if sheet.figures or sheet.described:
        tables = "".join(_table(figure_table) for figure_table in sheet.figures)
        summary = escape(words_in(language, "Figures"))
        words = "".join(f"<p>{_text(paragraph)}</p>" for paragraph in sheet.described)
        words = f'<div id="sheet-{number}-long">{words}</div>' if words else ""
        lines.append(f"<figcaption><details><summary>{summary}</summary>{words}{tables}</details></figcaption>")
    lines.append("</figure>")
    return "\n".join(lines)


def _slider(sheet: WebPage, language: str) -> str:
    before, after = escape(words_in(language, "Step back")), escape(words_in(language, "Step on"))
    step = escape(words_in(language, "Step"))
    return (
        f'<div class="steps" hidden><button type="button" class="before" aria-label="{before}">◂</button>'
        f'<input type="range" min="0" max="{len(sheet.steps) - 1}" value="0" step="1" aria-label="{step}">'
        f'<button type="button" class="after" aria-label="{after}">▸</button>'
        f'<output aria-live="polite">{_text(sheet.steps[0].name)}</output></div>'
    )


def _table(figures: FigureTable) -> str:
    def cells(row: Sequence[str], tag: str) -> str:
        made = []
        for place, text in enumerate(row):
            number = ' class="n"' if figures.numbers[place] else ""
            kind = tag if tag == "th" or place else "th"
            scope = ' scope="col"' if tag == "th" else ' scope="row"' if kind == "th" else ""
            made.append(f"<{kind}{scope}{number}>{_text(text)}</{kind}>")
        return f"<tr>{''.join(made)}</tr>"

    rows = "".join(cells(row, "td") for row in figures.rows)
    return (
        f"<table><caption>{_text(figures.heading)}</caption><thead>{cells(figures.head, 'th')}</thead>"
        f"<tbody>{rows}</tbody></table>"
    )


def _text(text: str) -> str:
    return escape("".join(sign for sign in text if sign >= " " or sign in "\t\n"), quote=False).replace("\n", "<br>")
