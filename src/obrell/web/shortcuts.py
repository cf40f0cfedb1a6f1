"""Every key of the application, in words, for the sheet that lists them."""

from __future__ import annotations

KEYS: tuple[tuple[str, tuple[tuple[str, str], ...]], ...] = (
    ("Everywhere", (
        ("Tab, first of all", "links that go straight to the stage, the sheet, true size"),
        ("?", "this sheet"),
        ("Control Z, Control Shift Z or Y", "undo, redo"),
        ("Escape", "leave the innermost of what is open: a menu, a tool, an effect, a group, the selection"),
    )),
    ("Draw", (
        ("B, R, G, S, L, T", "draw a box, round, ring, polygon of sides, line, text; twice puts one in the middle"),
        ("P", "the pen: click for a corner, drag for a smooth point, click the first point to close; Backspace takes"
              " the last back, Enter or Escape ends; arrows lead it, Enter puts a point"),
        ("I, U", "the shipped icons; a picture from a file"),
        ("An SVG or a picture", "drop the file on the stage, or paste its text"),
    )),
    ("Choose", (
        ("Press", "a part, or a place of its edge to be looked at in the column at the right"),
        ("Shift and press", "select one more, or one less"),
        ("Double press", "work inside a group, combination or repeat, one level each; Escape leaves it"),
        ("Enter", "name the selected part, or write a text’s words"),
        ("Right button", "list the parts that lie under the pointer"),
        ("Page up, Page down", "the part in front, the part behind; with Shift as well as what is selected"),
        ("Control A", "select all"),
    )),
    ("Move and change", (
        ("Arrows", "move by 1 px; with Shift by 10; pressed one after the other they are one step"),
        ("Shift", "while dragging anything: equal sides, one direction, steps of 15°"),
        ("Alt", "while dragging anything: from the centre"),
        ("Control", "while starting to drag a part: drag a copy"),
        ("hold N", "while dragging: no snapping"),
        (". and ,", "the next handle on the stage, and the one before; arrows move it, Escape leaves it"),
        ("D, K, Delete", "duplicate, make a linked copy, remove"),
        ("Control X, C, V", "cut, copy, paste in place"),
        ("M", "lay a material, try effects"),
        ("On a path", "press a point to choose it (Shift for more), drag points, handles and segments; Alt moves one"
                      " handle alone; double press on the line adds a point; arrows move, Delete removes"),
        ("The lamp", "drag it round the art, inwards to raise it; arrows turn it"),
        ("From a ruler", "drag a guide; drag it back onto the ruler to be rid of it"),
    )),
    ("Values", (
        ("in a value", "arrows change it (Shift ×10, Alt ×0.1), so does the wheel; Enter keeps, Escape restores; sums"
                       " such as 258-2*3 are welcome, and 1 device px for a width"),
        ("on a dial", "drag round; with Shift by 15°"),
        ("on a curve’s point", "arrows move it (Shift ×10, Alt ×0.1), Enter adds one beside it, Delete takes it out"),
    )),
    ("Try", (
        ("Space, Enter", "press what has the focus; let go, it is done; Escape gives up"),
        ("Arrows, Page up, Page down, Home, End", "turn a knob, move a slider; lead through a group"),
        ("Arrange, then arrows, D, Delete", "move by 1 px (Shift ×10); copy; remove; Shift and press chooses more"),
        ("Enter on a tile", "puts the control into the middle of the panel"),
    )),
    ("Look", (
        ("1, 2, 8, F, +, −", "see at 1:1, 2:1, 8:1 where the selection is, fit, nearer, farther"),
        ("X", "true pixels or sharp"),
        ("Space and drag", "move the paper under the window; the wheel does it too, with Control it enlarges"),
        ("hold W", "the art without the open effect, or without the selected part’s effects"),
        ("hold H", "no handles, rulers, dimensions"),
        ("hold O", "every part in a colour of its own"),
        ("hold Y", "fine lines from every part to those that it keeps to"),
        ("V", "before and after the open effect, or rest and a state, in two halves"),
        ("C", "a state and rest in turns, while another state than rest is drawn"),
        ("A", "all commands, found by their words"),
    )),
)  # fmt: skip
