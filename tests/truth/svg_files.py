"""Made-up SVG files with ordinary features, in the ways in which people and programs write them."""

from __future__ import annotations

import base64
import io

from PIL import Image

NS = 'xmlns="http://www.w3.org/2000/svg"'
LINKS = 'xmlns:xlink="http://www.w3.org/1999/xlink"'
PAGE = 'width="120" height="90" viewBox="0 0 120 90"'
FILES: dict[str, str] = {}


def page(inside: str, more: str = PAGE) -> str:
    return f"<svg {NS} {LINKS} {more}>{inside}</svg>"


def add(topic: str, **bodies: str) -> None:
    for name, body in bodies.items():
        FILES[f"{topic}: {name}"] = body if body.startswith(("<?", f"<svg {NS}")) else page(body)


def dot_picture() -> str:
    image = Image.new("RGBA", (4, 4))
    image.putdata([(40 * (i % 4), 60 * (i // 4), 160, 255) for i in range(16)])
    file = io.BytesIO()
    image.save(file, "PNG")
    return "data:image/png;base64," + base64.b64encode(file.getvalue()).decode()


STAR = "M60 10 L72 70 L20 32 L100 32 L48 70 Z"
BELL = "M6 8a6 6 0 0 1 12 0c0 7 3 9 3 9H3s3-2 3-9"
CLAPPER = "M10.3 21a1.94 1.94 0 0 0 3.4 0"
RAMP = '<stop offset="0" stop-color="#f6f1dc"/><stop offset=".5" stop-color="#1f8a92"/><stop offset="1" stop-color="#06323a"/>'
TWO = '<stop offset="0" stop-color="#d04a2f"/><stop offset="1" stop-color="#243b6b"/>'

add(
    "root",
    line_icon=f'<svg {NS} width="96" height="96" viewBox="0 0 24 24" fill="none" stroke="currentColor" stroke-width="2" '
    f'stroke-linecap="round" stroke-linejoin="round"><path d="{BELL}"/><path d="{CLAPPER}"/></svg>',
    line_icon_coloured=f'<svg {NS} width="96" height="96" viewBox="0 0 24 24" style="fill:none;stroke:#1f8a92;stroke-width:1.5;'
    f'stroke-linecap:round"><path d="{BELL}"/><path d="{CLAPPER}"/></svg>',
    opacity=page('<rect x="10" y="10" width="60" height="40" fill="#c33"/><circle cx="70" cy="50" r="25" fill="#33c"/>',
                 PAGE + ' opacity=".5"'),
    color=page('<path d="M10 10h50v50h-50z" fill="currentColor"/>', PAGE + ' color="#147"'),
    no_view_box=f'<svg {NS} width="120" height="90"><rect x="5" y="5" width="60" height="30" fill="#174"/></svg>',
    width_only=f'<svg {NS} width="120" viewBox="0 0 240 180"><rect x="20" y="20" width="120" height="60" fill="#174"/></svg>',
    millimetres=f'<svg {NS} width="30mm" height="20mm" viewBox="0 0 30 20"><rect x="2" y="2" width="20" height="10" '
    'fill="#174"/></svg>',
    offset_view_box=page('<rect x="-40" y="-20" width="60" height="30" fill="#174"/>', 'width="120" height="90" viewBox="-60 -45 120 90"'),
    stretched=page('<circle cx="50" cy="50" r="40" fill="#174"/>',
                   'width="120" height="90" viewBox="0 0 100 100" preserveAspectRatio="none"'),
    sliced=page('<circle cx="50" cy="50" r="45" fill="#174"/>',
                'width="120" height="90" viewBox="0 0 100 100" preserveAspectRatio="xMidYMin slice"'),
    to_the_right=page('<circle cx="50" cy="50" r="45" fill="#174"/>',
                      'width="120" height="90" viewBox="0 0 100 100" preserveAspectRatio="xMaxYMax meet"'),
    beyond_the_page='<circle cx="10" cy="80" r="30" fill="#174"/><rect x="100" y="-10" width="50" height="40" fill="#a31"/>',
    doctype='<?xml version="1.0" encoding="UTF-8" standalone="no"?>\n<!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" '
    '"http://www.w3.org/Graphics/SVG/1.1/DTD/svg11.dtd">\n' + page('<rect x="8" y="8" width="50" height="40" fill="#a31"/>'),
    transform=page('<rect x="8" y="8" width="50" height="40" fill="#a31"/>', PAGE + ' transform="rotate(10)"'),
)  # fmt: skip

add(
    "style",
    sheet='<style>.a{fill:#a31;stroke:#222;stroke-width:3}</style><rect class="a" x="10" y="10" width="60" height="40"/>',
    cdata='<style type="text/css"><![CDATA[ .st0{fill:#FFFFFF;stroke:#000000;stroke-miterlimit:10;} .st1{fill:#E94F37;} ]]>'
    '</style><rect class="st0" x="8" y="8" width="90" height="60"/><circle class="st1" cx="50" cy="40" r="20"/>',
    in_defs='<defs><style>.cls-1{fill:none;stroke:#1f8a92;stroke-linecap:round;stroke-width:6px;}.cls-2{fill:#d9efee}</style>'
    '</defs><path class="cls-2" d="M10 10h80v60H10z"/><path class="cls-1" d="M20 60 L50 20 L80 60"/>',
    type_selector='<style>rect{fill:#2a7}circle{fill:#72a}</style><rect x="5" y="5" width="50" height="50"/><circle cx="80" cy="50" r="25"/>',
    id_selector='<style>#k{fill:#2a7}rect{fill:#000}</style><rect id="k" x="5" y="5" width="50" height="50"/>',
    descendant='<style>g .b{fill:#2a7} g>rect{stroke:#000}</style><g><rect class="b" x="5" y="5" width="50" height="50"/></g>'
    '<rect class="b" x="60" y="5" width="50" height="50"/>',
    several_classes='<style>.a{fill:#2a7}.b{stroke:#a31;stroke-width:4}.a.b{opacity:.6}</style><rect class="a b" x="15" y="15" width="50" height="50"/>',
    specificity='<style>rect.a{fill:#2a7}.a{fill:#a31}rect{fill:#11f}</style><rect class="a" x="15" y="15" width="50" height="50"/>',
    order='<style>.b{fill:#2a7}.a{fill:#a31}</style><rect class="a b" x="15" y="15" width="50" height="50"/>',
    important='<style>.a{fill:#2a7!important}</style><rect class="a" style="fill:#a31" x="15" y="15" width="50" height="50"/>',
    over_attribute='<style>rect{fill:#2a7}</style><rect fill="#a31" x="15" y="15" width="50" height="50"/>',
    inline_over_sheet='<style>rect{fill:#2a7}</style><rect style="fill:#a31" x="15" y="15" width="50" height="50"/>',
    inherit='<g fill="#a31" stroke="#222"><rect style="fill:inherit;stroke:none" x="15" y="15" width="50" height="50"/></g>',
    inherit_opacity='<g opacity=".5"><rect style="opacity:inherit" x="15" y="15" width="50" height="50" fill="#a31"/></g>',
    current_color='<g color="#a31"><rect fill="currentColor" stroke="CurrentColor" x="15" y="15" width="50" height="50"/></g>',
    at_rules='<style>@charset "utf-8";@import url(x.css);@font-face{font-family:x;src:url(y)}.a{fill:#2a7}'
    '@media print{.a{fill:#f00}}</style><rect class="a" x="15" y="15" width="50" height="50"/>',
    media_screen='<style>@media screen{.a{fill:#2a7}}</style><rect class="a" x="15" y="15" width="50" height="50"/>',
    comments='<style>/* one */.a/* two */{/* three */fill:#2a7;;}</style><rect class="a" x="15" y="15" width="50" height="50"/>',
    list_of_selectors='<style>.a,.b,circle{fill:#2a7}</style><rect class="b" x="5" y="15" width="40" height="50"/><circle cx="80" cy="40" r="20"/>',
    attribute_selector='<style>[data-k="1"]{fill:#2a7}</style><rect data-k="1" x="5" y="15" width="40" height="50"/>',
    nth_child='<style>rect:nth-child(3){fill:#2a7}</style><rect x="5" y="15" width="30" height="50"/><rect x="45" y="15" width="30" height="50"/>',
    bad_selector='<style>a:::b{fill:#f00} .a{fill:#2a7}</style><rect class="a" x="5" y="15" width="40" height="50"/>',
    variables='<style>:root{--key:#2a7}.a{fill:var(--key)}.b{fill:var(--no, #a31)}</style><rect class="a" x="5" y="15" width="40" height="50"/>'
    '<rect class="b" x="55" y="15" width="40" height="50"/>',
    initial='<g fill="#a31"><rect style="fill:initial" x="15" y="15" width="50" height="50"/></g>',
    geometry='<style>rect{x:20px;y:10px;width:60px;height:50%;rx:8px}circle{r:15px;cx:90px;cy:60px}</style><rect fill="#2a7"/><circle/>',
    path_in_sheet='<style>path{d:path("M10 10 L90 20 L50 70 Z");fill:#2a7}</style><path/>',
    units_in_style='<path style="stroke:#2a7;stroke-width:2mm;fill:none" d="M10 20H100M10 50H80"/>',
    layers='<style>@layer base,theme;.a{stroke:#222;stroke-width:4}@layer theme{.a{fill:#2a7}}@layer base{rect.a{fill:#a31;stroke:#fff}}'
    '@layer{.b{fill:#147}}</style><rect class="a" x="5" y="15" width="40" height="50"/><rect class="b" x="60" y="15" width="40" height="50"/>',
    layers_nested='<style>@layer a{.a{fill:#2a7}@layer in{rect.a{fill:#a31;stroke:#147;stroke-width:4}}}@layer b{.a{stroke:#fc6}}@layer a.in{.a{stroke:#000}}</style>'
    '<rect class="a" x="5" y="15" width="40" height="50"/>',
    layers_unnamed='<style>@layer{rect.a{fill:#a31}}@layer c{.a{fill:#2a7}}@layer{.b{fill:#147}}@layer c{.b{fill:#fc6}}</style>'
    '<rect class="a" x="5" y="15" width="40" height="50"/><rect class="b" x="60" y="15" width="40" height="50"/>',
    layers_important='<style>@layer a{.a{fill:#a31!important}}@layer b{.a{fill:#147!important;}}.a{fill:#2a7!important}.b{fill:#2a7}@layer b{.b{fill:#a31!important}}</style>'
    '<rect class="a" x="5" y="15" width="40" height="50"/><rect class="b" x="60" y="15" width="40" height="50" style="fill:#fc6"/>',
    nested_rules='<style><![CDATA[g{fill:#2a7;rect{stroke:#222;stroke-width:4}&.k circle{fill:#a31}.m &{opacity:.5}}]]></style>'
    '<g class="k"><rect x="5" y="15" width="40" height="50"/><circle cx="85" cy="40" r="20"/></g>',
    sketch='<g id="layer1" transform="translate(-10,-5)"><path id="path12" style="opacity:1;fill:#1f8a92;fill-opacity:0.7;fill-rule:evenodd;'
    'stroke:#06323a;stroke-width:2.5;stroke-linecap:butt;stroke-linejoin:miter;stroke-miterlimit:4;stroke-dasharray:none;'
    'stroke-opacity:1" d="m 20,15 60,5 10,40 -50,15 z"/></g>',
)  # fmt: skip

SYMBOL = '<symbol id="s" viewBox="0 0 10 10"><rect width="10" height="10" fill="#d9efee"/><circle cx="5" cy="5" r="5" fill="#1f8a92"/></symbol>'
add(
    "nested",
    symbol_sized=f'{SYMBOL}<use href="#s" x="10" y="10" width="40" height="40"/><use href="#s" x="60" y="20" width="50" height="30"/>',
    symbol_linked=f'<defs>{SYMBOL}</defs><use xlink:href="#s" x="30" y="10" width="60" height="60"/>',
    symbol_unsized=f"{SYMBOL}<use href='#s'/>",
    symbol_stretched='<symbol id="s" viewBox="0 0 10 10" preserveAspectRatio="none"><circle cx="5" cy="5" r="5" fill="#1f8a92"/></symbol>'
    '<use href="#s" x="10" y="20" width="90" height="40"/>',
    symbol_cut='<symbol id="s" viewBox="0 0 10 10"><circle cx="10" cy="5" r="5" fill="#1f8a92"/></symbol><use href="#s" x="20" y="20" width="40" height="40"/>',
    symbol_own_size='<symbol id="s" width="40" height="30" viewBox="0 0 10 10"><rect width="10" height="10"/></symbol><use href="#s" x="20" y="20"/>',
    symbol_overflow='<symbol id="s" viewBox="0 0 10 10" style="overflow:visible"><circle cx="10" cy="5" r="5" fill="#1f8a92"/></symbol><use href="#s" x="20" y="20" width="40" height="40"/>',
    use_style='<defs><circle id="c" cx="20" cy="20" r="15"/></defs><use href="#c" fill="#a31"/><use href="#c" x="50" fill="#174" opacity=".5"/>',
    use_keeps_own='<defs><circle id="c" cx="20" cy="20" r="15" fill="#147"/></defs><use href="#c" fill="#a31"/>',
    use_transform='<defs><rect id="c" width="30" height="20" fill="#147"/></defs><use href="#c" transform="translate(60 20) rotate(30)" x="5" y="5"/>',
    use_group='<defs><g id="c"><rect width="30" height="20" fill="#147"/><circle cx="30" cy="20" r="9" fill="#a31"/></g></defs>'
    '<use href="#c" x="10" y="10"/><use href="#c" x="60" y="40"/>',
    use_of_use='<defs><rect id="a" width="20" height="20" fill="#147"/><use id="b" href="#a" x="10"/></defs><use href="#b" x="20" y="20"/>',
    svg='<svg x="20" y="10" width="60" height="60" viewBox="0 0 10 10"><circle cx="5" cy="5" r="5" fill="#174"/></svg>',
    svg_cut='<svg x="20" y="10" width="40" height="40"><circle cx="40" cy="20" r="20" fill="#174"/></svg>',
    svg_percent='<svg x="25%" y="10%" width="50%" height="50%"><rect width="100%" height="50%" fill="#174"/></svg>',
    svg_sliced='<svg x="10" y="10" width="100" height="40" viewBox="0 0 10 10" preserveAspectRatio="xMinYMax slice"><circle cx="5" cy="5" r="5" fill="#174"/></svg>',
    svg_turned='<g transform="rotate(20 60 45)"><svg x="30" y="20" width="50" height="40"><circle cx="50" cy="20" r="25" fill="#174"/></svg></g>',
    thirty_groups="<g>" * 30 + '<rect x="10" y="10" width="40" height="40" fill="#147"/>' + "</g>" * 30,
    thirty_moves='<g transform="translate(1 1) rotate(1)">' * 30 + '<rect width="40" height="20" fill="#147"/>' + "</g>" * 30,
    foreign='<metadata><x:y xmlns:x="urn:x">a</x:y></metadata><x:thing xmlns:x="urn:x"><rect width="9" height="9"/></x:thing>'
    '<rect x="10" y="10" width="40" height="40" fill="#147"/>',
    link='<a href="https://obrell.example"><rect x="10" y="10" width="40" height="40" fill="#147"/></a>',
    switch='<switch><g systemLanguage="xx"><rect width="90" height="90" fill="#f00"/></g><g><rect x="10" y="10" width="40" height="40" fill="#147"/></g></switch>',
    display_none='<g display="none"><rect width="90" height="90" fill="#f00"/></g><rect style="display:none" width="50" height="50"/><rect x="9" y="9" width="20" height="20"/>',
    visibility='<g visibility="hidden"><rect width="90" height="90" fill="#f00"/><rect visibility="visible" x="9" y="9" width="40" height="40"/></g>',
)  # fmt: skip

BAR = 'width="50" height="20" fill="#1f8a92"'
add(
    "transform",
    compact=f'<rect {BAR} transform="translate(30,20)rotate(30)scale(1.2,.8)"/>',
    spaced=f'<rect {BAR} transform=" translate ( 30 , 20 )  ,  rotate( 30 ) "/>',
    signs=f'<rect {BAR} transform="translate(50-5)rotate(-20)"/>',
    exponents=f'<rect {BAR} transform="translate(3e1 2.5E1) scale(.5e0)"/>',
    matrix=f'<rect {BAR} transform="matrix(.8 .3 -.2 1.1 30 20)"/>',
    matrix_commas=f'<rect {BAR} transform="matrix(.8,.3,-.2,1.1,30,20)"/>',
    skews=f'<rect {BAR} x="20" y="20" transform="skewX(20) skewY(-10)"/>',
    about_point=f'<rect {BAR} x="40" y="30" transform="rotate(45, 65, 40)"/>',
    mirrored='<path d="M10 10h50l-20 40z" fill="#1f8a92" transform="translate(110 0) scale(-1 1)"/>',
    one_scale=f'<rect {BAR} transform="scale(2)"/>',
    css=f'<rect {BAR} style="transform:translate(30px,20px) rotate(30deg)"/>',
    css_single=f'<rect {BAR} style="translate:30px 20px;rotate:30deg;scale:1.5 .8"/>',
    css_single_and_all=f'<rect {BAR} style="rotate:z 20deg;translate:20px;transform:translate(10px,15px);transform-box:fill-box;scale:120%"/>',
    css_turn=f'<rect {BAR} style="transform:translate(40px,30px) rotate(.1turn)"/>',
    css_origin=f'<rect {BAR} x="30" y="30" style="transform:rotate(30deg);transform-origin:55px 40px"/>',
    css_box=f'<rect {BAR} x="30" y="30" style="transform:rotate(30deg);transform-box:fill-box;transform-origin:center"/>',
    css_corner=f'<rect {BAR} x="30" y="30" style="transform:scale(.5);transform-box:fill-box;transform-origin:right bottom"/>',
    css_percent_origin=f'<rect {BAR} x="30" y="30" style="transform:rotate(90deg);transform-origin:50% 50%"/>',
    css_axes=f'<rect {BAR} style="transform:translateX(20px) translateY(10px) scaleX(.5) scaleY(2)"/>',
    css_percent=f'<rect {BAR} style="transform-box:fill-box;transform:translate(50%,100%)"/>',
    origin_attribute=f'<rect {BAR} x="30" y="30" transform="rotate(30)" transform-origin="55 40"/>',
    css_over_attribute=f'<rect {BAR} transform="translate(90 90)" style="transform:translate(20px,20px)"/>',
    stretched_stroke='<circle cx="20" cy="20" r="12" fill="#d9efee" stroke="#147" stroke-width="4" transform="scale(3 1.5)"/>',
    stretched_line='<path d="M5 5L30 30" stroke="#147" stroke-width="4" fill="none" stroke-linecap="round" transform="scale(3 1.5)"/>',
    fixed_stroke='<rect x="3" y="3" width="20" height="12" fill="none" stroke="#147" stroke-width="3" vector-effect="non-scaling-stroke" transform="scale(4)"/>',
    nested=f'<g transform="translate(20 10)"><g transform="rotate(15)"><g transform="scale(1.5)"><rect {BAR}/></g></g></g>',
    turned_box='<rect x="-25" y="-15" width="50" height="30" rx="8" fill="#1f8a92" stroke="#06323a" stroke-width="2" transform="translate(60 45) rotate(30)"/>',
    turned_ellipse='<ellipse rx="40" ry="15" fill="#1f8a92" transform="translate(60 45) rotate(-25)"/>',
)  # fmt: skip

COLOURS = {
    "names": ("rebeccapurple", "PapayaWhip", "darkslategrey"), "hex": ("#abc", "#abcd", "#1f8a9280"),
    "rgb": ("rgb(10,120,200)", "rgb(10% 40% 80%)", "rgba(10,120,200,.4)"),
    "rgb_spaces": ("rgb(10 120 200 / 40%)", "rgb(300 -20 100)", "rgb(10.6 120.4 200.5)"),
    "hsl": ("hsl(190,60%,40%)", "hsl(190 60% 40%)", "hsl(190deg 60% 40% / .5)"),
    "hsl_angles": ("hsl(0.5turn 60% 40%)", "hsla(3.3rad, 60%, 40%, .7)", "hsl(-170 60% 40%)"),
    "hwb": ("hwb(190 20% 20%)", "hwb(90 60% 60%)", "hwb(20deg 10% 10% / 50%)"),
    "lab": ("lab(50% 40 20)", "lch(50% 40 200)", "lab(60 -20 30 / .5)"),
    "oklab": ("oklab(0.6 0.1 -0.05)", "oklch(0.6 0.1 200)", "oklch(60% 0.1 200deg / 50%)"),
    "color": ("color(srgb 0.2 0.5 0.7)", "color(srgb-linear 0.2 0.5 0.7)", "color(xyz 0.2 0.2 0.3)"),
    "schemes": ("light-dark(#2a7, #a31)", "light-dark(rgb(10 120 200), #fff)", "#147"),
    "mixes": ("color-mix(in srgb, #a31 30%, #147)", "color-mix(in oklab, red, 20% blue)", "color-mix(in srgb-linear, #fff, #000)"),
    "mixes_of_clear": ("color-mix(in srgb, #a31 40%, transparent)", "color-mix(in oklab, #a318 10%, #147 40%)", "#147"),
    "mixes_of_hues": ("color-mix(in oklch, #a31 30%, #147)", "color-mix(in hsl longer hue, red, 20% lime)", "color-mix(in lch, #1f8a92, #c9952c)"),
    "mixes_of_hues_turned": ("color-mix(in hsl increasing hue, #a31, #147)", "color-mix(in oklch decreasing hue, #a31, #147)", "color-mix(in oklch, #888, #a318)"),
    "mixes_of_light": ("color-mix(in lab, #a31 30%, #147)", "color-mix(in xyz, red, 20% blue)", "color-mix(in display-p3, #a31, #3c6)"),
    "light_of_others": ("color(from #a31 display-p3 r g calc(b * 2))", "color(from #3c6 xyz-d50 y x z)", "color-mix(in xyz-d50, #147, #fc08)"),
    "mixes_of_greys": ("color-mix(in lch, #888, #a31)", "color-mix(in hsl, #a31, white 40%)", "color-mix(in hsl longer hue, #a31, #cc4411)"),
    "relative": ("rgb(from #a31 b g r)", "hsl(from #1f8a92 calc(h + 40) s 60%)", "hwb(from #147 h 30% b / 70%)"),
    "relative_oklch": ("oklch(from #a31 calc(l + .1) c h)", "oklab(from #147 l b a)", "oklch(from #1f8a9280 l calc(c * 2) calc((h - 30) / 2) / calc(alpha / 2))"),
    "relative_lab": ("lab(from #a31 l a calc(-1 * b))", "lch(from teal 60 c h)", "color(from #147 srgb g calc(r * 2) b / .5)"),
    "relative_of_others": ("rgb(from light-dark(#2a7, #a31) r b g)", "rgb(from rgb(from #147 b g r) g r b)", "color(from #a31 srgb-linear g g r)"),
    "none_and_clear": ("none", "transparent", "#a31"),
}  # fmt: skip
add("colour", **{
    name: "".join(f'<rect x="{5 + 38 * i}" y="10" width="34" height="60" fill="{c}"/>' for i, c in enumerate(three))
    for name, three in COLOURS.items()
})  # fmt: skip
add(
    "colour",
    fill_opacity='<rect x="10" y="10" width="60" height="40" fill="#a31" fill-opacity="40%" stroke="#147" stroke-width="8" stroke-opacity=".5"/>',
    group_opacity='<g opacity=".5"><rect x="10" y="10" width="60" height="40" fill="#a31"/><circle cx="70" cy="50" r="25" fill="#147"/></g>',
    blend='<rect width="70" height="90" fill="#d9a441"/><circle cx="60" cy="45" r="30" fill="#1f8a92" style="mix-blend-mode:multiply"/>',
    blend_group='<rect width="70" height="90" fill="#d9a441"/><g style="mix-blend-mode:screen"><circle cx="60" cy="45" r="30" fill="#1f8a92"/><rect x="60" y="40" width="40" height="30" fill="#147"/></g>',
    isolated='<rect width="70" height="90" fill="#d9a441"/><g style="isolation:isolate"><circle cx="60" cy="45" r="30" fill="#1f8a92" style="mix-blend-mode:multiply"/></g>',
    blend_in_group='<rect width="70" height="90" fill="#d9a441"/><g><rect x="50" y="5" width="40" height="20" fill="#fff"/><circle cx="60" cy="45" r="30" fill="#1f8a92" style="mix-blend-mode:multiply"/></g>',
    unknown='<rect x="10" y="10" width="60" height="40" fill="no-such-colour"/><rect x="80" y="10" width="30" height="40" fill="#a31"/>',
)  # fmt: skip


def ramped(kind: str, inside: str, use: str, stops: str = RAMP) -> str:
    return f'<defs><{kind}Gradient id="g" {inside}>{stops}</{kind}Gradient></defs>{use}'


WIDE = '<rect x="10" y="20" width="100" height="40" fill="url(#g)"/>'
TURNED = '<rect x="-40" y="-20" width="80" height="40" fill="url(#g)" transform="translate(60 45) rotate(30)"/>'
add(
    "gradient",
    linear=ramped("linear", "", WIDE),
    down=ramped("linear", 'x1="0" y1="0" x2="0" y2="1"', WIDE),
    diagonal_wide=ramped("linear", 'x1="0" y1="0" x2="1" y2="1"', WIDE),
    percent=ramped("linear", 'x1="10%" y1="0%" x2="80%" y2="100%"', WIDE),
    user_space=ramped("linear", 'gradientUnits="userSpaceOnUse" x1="20" y1="20" x2="90" y2="60"', WIDE),
    user_percent=ramped("linear", 'gradientUnits="userSpaceOnUse" x1="10%" y1="10%" x2="80%" y2="60%"', WIDE),
    transformed=ramped("linear", 'gradientTransform="rotate(45 .5 .5) scale(.5)"', WIDE),
    skewed=ramped("linear", 'gradientUnits="userSpaceOnUse" x1="20" y1="20" x2="90" y2="20" gradientTransform="skewX(30)"', WIDE),
    turned=ramped("linear", 'x1="0" x2="1" y2="1"', TURNED),
    turned_user=ramped("linear", 'gradientUnits="userSpaceOnUse" x1="-40" x2="10" y2="10"', TURNED),
    slanted=ramped("linear", "", '<path d="M10 20h60l30 40h-60z" fill="url(#g)" transform="skewX(15)"/>'),
    repeated=ramped("linear", 'x1=".3" x2=".45" spreadMethod="repeat"', WIDE, TWO),
    reflected=ramped("linear", 'x1=".3" x2=".45" y2=".2" spreadMethod="reflect"', WIDE, TWO),
    padded=ramped("linear", 'x1=".3" x2=".5"', WIDE),
    reversed_line=ramped("linear", 'x1="1" x2="0"', WIDE),
    hard=ramped("linear", "", WIDE, '<stop offset=".5" stop-color="#a31"/><stop offset=".5" stop-color="#147"/>'),
    faded=ramped("linear", "", WIDE, '<stop offset="0" stop-color="#a31" stop-opacity="1"/><stop offset="1" stop-color="#147" stop-opacity="0"/>'),
    stop_style=ramped("linear", "", WIDE, '<stop offset="0" style="stop-color:#a31;stop-opacity:.5"/><stop offset="100%" style="stop-color:rgb(10,40,90)"/>'),
    stop_class="<style>.s0{stop-color:#a31}.s1{stop-color:#147}</style>" + ramped("linear", "", WIDE, '<stop class="s0"/><stop offset="1" class="s1"/>'),
    stop_current=ramped("linear", 'color="#a31"', WIDE, '<stop offset="0" stop-color="currentColor"/><stop offset="1" stop-color="#147"/>'),
    stop_order=ramped("linear", "", WIDE, '<stop offset=".6" stop-color="#a31"/><stop offset=".3" stop-color="#fff"/><stop offset="1" stop-color="#147"/>'),
    one_stop=ramped("linear", "", WIDE, '<stop offset=".5" stop-color="#a31"/>'),
    no_stops=ramped("linear", "", WIDE, "") + '<rect width="9" height="9"/>',
    no_length=ramped("linear", 'x1=".5" x2=".5"', WIDE),
    href=f'<defs><linearGradient id="a">{RAMP}</linearGradient><linearGradient id="g" xlink:href="#a" x1="0" y1="0" x2="0" y2="1"/></defs>{WIDE}',
    href_chain=f'<defs><linearGradient id="a">{RAMP}</linearGradient><linearGradient id="b" href="#a" x2=".5"/><radialGradient id="g" href="#b" r=".3"/></defs>{WIDE}',
    missing='<rect x="10" y="10" width="50" height="50" fill="url(#no) #a31"/><rect x="70" y="10" width="30" height="50" fill="url(#no)" stroke="#147"/>',
    quoted=ramped("linear", "", '<rect x="10" y="20" width="100" height="40" style="fill:url(&quot;#g&quot;)"/>'),
    radial=ramped("radial", "", WIDE),
    radial_user=ramped("radial", 'gradientUnits="userSpaceOnUse" cx="50" cy="30" r="40"', WIDE),
    radial_focus=ramped("radial", 'fx=".3" fy=".4"', WIDE),
    radial_percent_user=ramped("radial", 'gradientUnits="userSpaceOnUse" cx="50%" cy="40%" r="30%"', WIDE),
    radial_transformed=ramped("radial", 'gradientUnits="userSpaceOnUse" r="1" gradientTransform="translate(60 40) rotate(30) scale(45 15)"', WIDE),
    radial_turned=ramped("radial", "", TURNED),
    radial_turned_focus=ramped("radial", 'fx=".3"', TURNED),
    radial_skewed=ramped("radial", 'gradientTransform="skewX(20)"', WIDE),
    radial_repeated=ramped("radial", 'r=".2" spreadMethod="repeat"', WIDE, TWO),
    radial_reflected=ramped("radial", 'r=".2" spreadMethod="reflect"', WIDE, TWO),
    radial_ring=ramped("radial", 'r=".5" fr=".2"', WIDE),
    radial_none=ramped("radial", 'r="0"', WIDE),
    stroke=ramped("linear", "", '<rect x="20" y="20" width="80" height="40" fill="none" stroke="url(#g)" stroke-width="10"/>'),
    stroke_path=ramped("linear", "", '<path d="M15 60 C30 0 80 0 100 60" fill="none" stroke="url(#g)" stroke-width="8"/>'),
    stroke_flat_box=ramped("linear", "", '<rect width="9" height="9"/><line x1="10" y1="40" x2="110" y2="40" stroke="url(#g)" stroke-width="10"/>'),
    stroke_flat_user=ramped("linear", 'gradientUnits="userSpaceOnUse" x1="10" x2="110"', '<line x1="10" y1="40" x2="110" y2="40" stroke="url(#g)" stroke-width="10"/>'),
    both=ramped("linear", "", '<ellipse cx="60" cy="45" rx="45" ry="25" fill="url(#g)" stroke="url(#g)" stroke-width="12"/>', TWO),
    fill_opacity=ramped("linear", "", '<rect x="10" y="20" width="100" height="40" fill="url(#g)" fill-opacity=".4"/>'),
    css_transform="<style>#g{gradient-transform:none}</style>" + ramped("linear", 'x2=".5"', WIDE),
    defined_after='<rect x="10" y="20" width="100" height="40" fill="url(#g)"/>' + ramped("linear", "", ""),
    pattern='<defs><pattern id="p" width="8" height="8" patternUnits="userSpaceOnUse"/></defs><rect x="70" y="10" width="30" height="50" fill="#147"/>',
)  # fmt: skip
del FILES["gradient: css_transform"]

add(
    "shape",
    rounded='<rect x="10" y="10" width="90" height="60" rx="15" fill="#174"/>',
    rounded_one='<rect x="10" y="10" width="90" height="60" ry="15" fill="#174"/>',
    rounded_two='<rect x="10" y="10" width="90" height="60" rx="30" ry="10" fill="#174"/>',
    radii_cut='<rect x="10" y="10" width="90" height="30" rx="40" ry="25" fill="#174"/>',
    radii_cut_one='<rect x="10" y="10" width="90" height="30" rx="40" fill="#174"/>',
    radius_percent='<rect x="10" y="10" width="90" height="60" rx="10%" fill="#174"/>',
    no_size='<rect x="10" y="10" width="0" height="60" fill="#f00"/><circle r="-3"/><ellipse rx="5" ry="0"/><rect width="9" height="9"/>',
    percent='<rect x="10%" y="20%" width="50%" height="40%" fill="#174"/><circle cx="80%" cy="50%" r="10%" fill="#a31"/>',
    units='<rect x="2mm" y="5pt" width="1in" height="1cm" fill="#174"/><circle cx="5em" cy="3em" r="1em" fill="#a31"/>',
    font_units='<g font-size="10"><rect x="1em" y="1em" width="6em" height="3em" fill="#174"/></g>',
    polygon='<polygon points="60,5 110,80 10,80" fill="#174"/>',
    polygon_spaces='<polygon points="60 5 110 80\n10 80" fill="#174"/>',
    polyline='<polyline points="10,10 60,60 110,10" fill="#d9efee" stroke="#174" stroke-width="5"/>',
    points_odd='<polyline points="10,10 60,60 110,10 20" fill="none" stroke="#174" stroke-width="5"/>',
    points_packed='<polyline points="10-10 60.5.5e1 110,40" fill="none" stroke="#174" stroke-width="5"/>',
    line='<line x1="10" y1="10" x2="100" y2="70" stroke="#174" stroke-width="6"/>',
    line_percent='<line x1="10%" y1="10%" x2="90%" y2="90%" stroke="#174" stroke-width="5%"/>',
    star=f'<path d="{STAR}" fill="#174"/>',
    star_evenodd=f'<path d="{STAR}" fill="#174" fill-rule="evenodd"/>',
    hole='<path d="M10 10h80v60h-80z M30 25v30h40v-30z" fill="#174"/>',
    hole_evenodd='<path d="M10 10h80v60h-80z M30 25h40v30h-40z" fill="#174" fill-rule="evenodd"/>',
    open_filled='<path d="M10 10 L100 20 L60 80" fill="#174"/>',
    packed='<path d="M10-5 15 70l40.5.5.5-60zm60 20v40h20V15Z" fill="#174"/>',
    arc_flags='<path d="M20 40a20 20 0 01 40 0A20 20 0 1160 60" fill="#174"/>',
    arc_packed='<path d="M20 40a20 20 0 0140 0a20 20 0 00 40 0z" fill="#174"/>',
    arc_no_radius='<path d="M20 20A0 0 0 0 1 80 20L80 70A0 9 0 0 0 20 70Z" fill="#174"/>',
    arc_small='<path d="M20 40A5 5 0 0 1 80 40Z" fill="#174"/>',
    arc_turned='<path d="M20 60A40 15 30 1 1 80 60Z" fill="#174"/>',
    arc_same='<path d="M20 20A9 9 0 0 1 20 20L80 20L80 70Z" fill="#174"/>',
    smooth='<path d="M10 60C20 10 40 10 50 60S80 110 100 30" fill="none" stroke="#174" stroke-width="4"/>',
    quadratic='<path d="M10 60Q30 0 60 60T110 60" fill="none" stroke="#174" stroke-width="4"/>',
    smooth_alone='<path d="M10 60S40 10 60 60T100 20" fill="none" stroke="#174" stroke-width="4"/>',
    relative='<path d="m10 10 30 5 10 30-40 10z m60 0 h30 v30 h-30 z" fill="#174"/>',
    move_pairs='<path d="M10 10 50 10 50 60 10 60" fill="#174"/>',
    after_close='<path d="M10 10h30v30z l40 40 h20z" fill="#174"/>',
    broken_end='<path d="M10 10 L100 10 L100 70 L hello" fill="#174"/>',
    broken_middle='<path d="M10 10 L100 10 L100 70 L 9 Q 3" fill="#174" stroke="#a31" stroke-width="3"/>',
    empty='<path d="" fill="#f00"/><path d="M5 5"/><rect width="20" height="20"/>',
    huge_numbers='<path d="M1e1 1e1L9e1 10L50 .7e2z" fill="#174"/>',
)  # fmt: skip

LINE = '<path d="M20 70 L40 20 L60 70 L100 60" fill="none" stroke="#147" stroke-width="10" {}/>'
DASHED = '<path d="M10 20H110M10 45H110M10 70H110" stroke="#147" stroke-width="8" fill="none" {}/>'
add(
    "stroke",
    caps_round=LINE.format('stroke-linecap="round"'),
    caps_square=LINE.format('stroke-linecap="square"'),
    joins_round=LINE.format('stroke-linejoin="round"'),
    joins_bevel=LINE.format('stroke-linejoin="bevel"'),
    mitre_short=LINE.format('stroke-miterlimit="1.5"'),
    mitre_long='<path d="M10 60 L60 15 L14 70" fill="none" stroke="#147" stroke-width="6" stroke-miterlimit="20"/>',
    filled_open='<path d="M20 70 L40 20 L60 70 L100 60" fill="#d9efee" stroke="#147" stroke-width="8"/>',
    filled_open_caps='<path d="M20 70 L40 20 L60 70 L100 60" fill="#d9efee" stroke="#147" stroke-width="8" stroke-linecap="round" stroke-linejoin="round"/>',
    filled_by_default='<path d="M20 70 L40 20 L60 70" stroke="#147" stroke-width="3"/>',
    filled_closed='<path d="M20 70 L40 20 L60 70 Z" fill="#d9efee" stroke="#147" stroke-width="8" stroke-linejoin="bevel"/>',
    filled_overlapping=f'<path d="{STAR}" fill="#d9efee" stroke="#147" stroke-width="4"/>',
    half_clear='<circle cx="50" cy="45" r="30" fill="#d9a441" stroke="#147" stroke-width="14" stroke-opacity=".5"/>',
    whole_half_clear='<circle cx="50" cy="45" r="30" fill="#d9a441" stroke="#147" stroke-width="14" opacity=".5"/>',
    box='<rect x="20" y="20" width="70" height="45" fill="#d9a441" stroke="#147" stroke-width="7"/>',
    box_round_joins='<rect x="20" y="20" width="70" height="45" fill="#d9a441" stroke="#147" stroke-width="16" stroke-linejoin="round"/>',
    box_bevel_joins='<rect x="20" y="20" width="70" height="45" fill="#d9a441" stroke="#147" stroke-width="16" stroke-linejoin="bevel"/>',
    box_rounded='<rect x="20" y="20" width="70" height="45" rx="9" fill="none" stroke="#147" stroke-width="7"/>',
    thick='<rect x="30" y="30" width="20" height="20" fill="#d9a441" stroke="#147" stroke-width="30"/>',
    hairline='<path d="M10.5 10V80M20 20.5H100" stroke="#147" stroke-width=".5" fill="none"/>',
    no_width='<path d="M10 10V80" stroke="#f00" stroke-width="0"/><rect x="30" width="9" height="9"/>',
    percent='<path d="M10 40H100" stroke="#147" stroke-width="10%"/>',
    dashes=DASHED.format('stroke-dasharray="12 6"'),
    dashes_commas=DASHED.format('stroke-dasharray="12, 6"'),
    dashes_one=DASHED.format('stroke-dasharray="9"'),
    dashes_three=DASHED.format('stroke-dasharray="12 4 6"'),
    dashes_four=DASHED.format('stroke-dasharray="16 4 2 4"'),
    dashes_offset=DASHED.format('stroke-dasharray="12 6" stroke-dashoffset="5"'),
    dashes_offset_back=DASHED.format('stroke-dasharray="12 6" stroke-dashoffset="-7"'),
    dots=DASHED.format('stroke-dasharray="0 14" stroke-linecap="round"'),
    dots_square=DASHED.format('stroke-dasharray="0 14" stroke-linecap="square"'),
    dashes_round=DASHED.format('stroke-dasharray="10 14" stroke-linecap="round"'),
    dashes_none=DASHED.format('stroke-dasharray="none"'),
    dashes_zero=DASHED.format('stroke-dasharray="0 0"'),
    dashes_negative=DASHED.format('stroke-dasharray="9 -3"'),
    dashes_css=DASHED.format('style="stroke-dasharray:10px 5px;stroke-dashoffset:3px"'),
    dashes_path_length='<path d="M10 40H110" stroke="#147" stroke-width="8" pathLength="10" stroke-dasharray="1 1"/>',
    dashes_circle='<circle cx="60" cy="45" r="30" fill="none" stroke="#147" stroke-width="6" stroke-dasharray="20 8"/>',
    dashes_rect='<rect x="20" y="15" width="80" height="60" rx="12" fill="#d9efee" stroke="#147" stroke-width="4" stroke-dasharray="14 6"/>',
    dashes_closed='<path d="M20 70 L60 10 L100 70 Z" fill="none" stroke="#147" stroke-width="6" stroke-dasharray="18 7"/>',
    gauge='<circle cx="60" cy="45" r="30" fill="none" stroke="#147" stroke-width="8" pathLength="100" stroke-dasharray="65 100" transform="rotate(-90 60 45)"/>',
    dot_path='<path d="M30 40h0M60 40h.01M90 40z" stroke="#147" stroke-width="14" stroke-linecap="round" fill="none"/>',
    paint_order='<path d="M20 70 L40 20 L60 70 Z" fill="#d9a441" stroke="#147" stroke-width="12" paint-order="stroke"/>',
    paint_order_css='<circle cx="50" cy="45" r="25" style="fill:#d9a441;stroke:#147;stroke-width:12;paint-order:stroke fill"/>',
    scaled='<g transform="scale(3)"><path d="M5 5L20 20L35 5" fill="none" stroke="#147" stroke-width="3" stroke-dasharray="4 2"/></g>',
    turned_dashes='<rect x="-30" y="-15" width="60" height="30" fill="none" stroke="#147" stroke-width="4" stroke-dasharray="9 5" transform="translate(60 45) rotate(20)"/>',
    curve='<path d="M10 70C20 0 50 0 60 40S100 90 110 20" fill="none" stroke="#147" stroke-width="9" stroke-linejoin="round"/>',
)  # fmt: skip

CARD = '<rect x="10" y="10" width="100" height="70" fill="#d9a441" clip-path="url(#c)"/>'
add(
    "clip",
    circle=f'<clipPath id="c"><circle cx="60" cy="45" r="30"/></clipPath>{CARD}',
    several=f'<clipPath id="c"><circle cx="40" cy="45" r="20"/><rect x="60" y="30" width="40" height="20"/></clipPath>{CARD}',
    overlapping=f'<clipPath id="c"><circle cx="50" cy="45" r="20"/><circle cx="65" cy="45" r="20"/></clipPath>{CARD}',
    rule=f'<clipPath id="c"><path clip-rule="evenodd" d="{STAR}"/></clipPath>{CARD}',
    rule_inherited=f'<clipPath id="c" clip-rule="evenodd"><path d="{STAR}"/></clipPath>{CARD}',
    rule_not_fill=f'<clipPath id="c"><path fill-rule="evenodd" d="{STAR}"/></clipPath>{CARD}',
    transformed='<clipPath id="c" transform="rotate(20 60 45)"><rect x="30" y="25" width="60" height="40"/></clipPath>' + CARD,
    child_transformed='<clipPath id="c"><rect width="40" height="30" transform="translate(40 30) rotate(20)"/></clipPath>' + CARD,
    box_units='<clipPath id="c" clipPathUnits="objectBoundingBox"><circle cx=".5" cy=".5" r=".4"/></clipPath>' + CARD,
    on_clip='<clipPath id="d"><rect x="20" y="20" width="50" height="40"/></clipPath><clipPath id="c" clip-path="url(#d)"><circle cx="60" cy="45" r="30"/></clipPath>' + CARD,
    child_on_clip='<clipPath id="d"><rect x="20" y="20" width="40" height="40"/></clipPath><clipPath id="c"><circle cx="60" cy="45" r="30" clip-path="url(#d)"/><rect x="80" y="60" width="20" height="20"/></clipPath>' + CARD,
    empty='<clipPath id="c"/>' + CARD + '<rect width="9" height="9"/>',
    missing=CARD.replace("#c", "#no"),
    none=CARD.replace("url(#c)", "none"),
    group='<clipPath id="c"><circle cx="60" cy="45" r="30"/></clipPath><g clip-path="url(#c)"><rect width="70" height="90" fill="#a31"/><rect x="60" width="60" height="90" fill="#147"/></g>',
    group_moved='<clipPath id="c"><circle cx="60" cy="45" r="30"/></clipPath><g clip-path="url(#c)" transform="translate(-20 10)"><rect width="130" height="90" fill="#a31"/></g>',
    group_box='<clipPath id="c" clipPathUnits="objectBoundingBox"><rect width=".5" height="1"/></clipPath><g clip-path="url(#c)"><circle cx="30" cy="45" r="20" fill="#a31"/><circle cx="80" cy="45" r="25" fill="#147"/></g>',
    nested_groups='<clipPath id="c"><circle cx="50" cy="45" r="30"/></clipPath><clipPath id="d"><rect x="40" y="10" width="60" height="50"/></clipPath>'
    '<g clip-path="url(#c)"><g clip-path="url(#d)"><rect width="120" height="90" fill="#a31"/></g></g>',
    with_use='<defs><circle id="r" cx="60" cy="45" r="30"/></defs><clipPath id="c"><use href="#r" x="10"/></clipPath>' + CARD,
    in_style='<clipPath id="c"><circle cx="60" cy="45" r="30"/></clipPath><rect style="clip-path:url(#c);fill:#147" width="120" height="90"/>',
    with_opacity='<clipPath id="c"><circle cx="60" cy="45" r="30"/></clipPath><g clip-path="url(#c)" opacity=".5"><rect width="70" height="90" fill="#a31"/></g>',
    stroke='<clipPath id="c"><rect x="20" y="20" width="60" height="50"/></clipPath><circle cx="60" cy="45" r="30" fill="#d9a441" stroke="#147" stroke-width="10" clip-path="url(#c)"/>',
    display='<clipPath id="c"><circle cx="60" cy="45" r="30"/><rect display="none" width="99" height="99"/></clipPath>' + CARD,
)  # fmt: skip

MASKED = '<rect x="10" y="10" width="100" height="70" fill="#147" mask="url(#m)"/>'
add(
    "mask",
    white='<mask id="m"><rect x="10" y="10" width="100" height="70" fill="#fff"/><circle cx="60" cy="45" r="20" fill="#000"/></mask>' + MASKED,
    grey='<mask id="m"><rect x="10" y="10" width="60" height="70" fill="#888"/></mask>' + MASKED,
    coloured='<mask id="m"><rect x="10" y="10" width="40" height="70" fill="#f00"/><rect x="50" y="10" width="30" height="70" fill="#0f0"/><rect x="80" y="10" width="30" height="70" fill="#00f"/></mask>' + MASKED,
    alpha='<mask id="m" mask-type="alpha"><circle cx="60" cy="45" r="30" fill="#000" fill-opacity=".6"/></mask>' + MASKED,
    alpha_css='<mask id="m" style="mask-type:alpha"><circle cx="60" cy="45" r="30"/></mask>' + MASKED,
    ramp=f'<linearGradient id="g"><stop stop-color="#fff"/><stop offset="1" stop-color="#000"/></linearGradient><mask id="m"><rect x="10" y="10" width="100" height="70" fill="url(#g)"/></mask>{MASKED}',
    ramp_opacity=f'<linearGradient id="g" x2="0" y2="1"><stop stop-color="#fff"/><stop offset="1" stop-color="#fff" stop-opacity="0"/></linearGradient><mask id="m"><rect x="10" y="10" width="100" height="70" fill="url(#g)"/></mask>{MASKED}',
    region='<mask id="m" maskUnits="userSpaceOnUse" x="20" y="20" width="50" height="40"><rect width="120" height="90" fill="#fff"/></mask>' + MASKED,
    region_box='<mask id="m" x="0" y="0" width=".5" height="1"><rect width="120" height="90" fill="#fff"/></mask>' + MASKED,
    box_content='<mask id="m" maskContentUnits="objectBoundingBox"><circle cx=".5" cy=".5" r=".4" fill="#fff"/></mask>' + MASKED,
    group='<mask id="m"><circle cx="60" cy="45" r="30" fill="#fff"/></mask><g mask="url(#m)"><rect width="70" height="90" fill="#a31"/><rect x="60" width="60" height="90" fill="#147"/></g>',
    turned='<mask id="m"><circle cx="60" cy="45" r="30" fill="#fff"/></mask><g transform="rotate(15 60 45)"><rect x="10" y="20" width="100" height="50" fill="#a31" mask="url(#m)"/></g>',
    missing=MASKED.replace("#m", "#no"),
    empty='<mask id="m"/>' + MASKED + '<rect width="9" height="9"/>',
    with_clip='<clipPath id="c"><rect x="10" y="10" width="60" height="80"/></clipPath><mask id="m"><circle cx="60" cy="45" r="30" fill="#fff"/></mask><rect width="120" height="90" fill="#147" mask="url(#m)" clip-path="url(#c)"/>',
    stroke_in_mask='<mask id="m"><circle cx="60" cy="45" r="25" fill="none" stroke="#fff" stroke-width="10"/></mask>' + MASKED,
)  # fmt: skip

add(
    "picture",
    embedded=f'<image x="20" y="10" width="64" height="64" href="{dot_picture()}" image-rendering="auto"/>',
    linked=f'<image x="20" y="10" width="64" height="64" xlink:href="{dot_picture()}"/>',
    turned=f'<image width="50" height="50" href="{dot_picture()}" transform="translate(60 10) rotate(30)"/>',
    stretched=f'<image x="10" y="10" width="100" height="40" preserveAspectRatio="none" href="{dot_picture()}"/>',
    whole=f'<image x="10" y="10" width="100" height="40" href="{dot_picture()}"/>',
    sliced=f'<image x="10" y="10" width="100" height="40" preserveAspectRatio="xMidYMid slice" href="{dot_picture()}"/>',
)  # fmt: skip
