from ovlo import drawing


def dot(nib, colour):
    nib.ink = colour
    nib.circle(6, fill=colour)


def border(nib):
    nib.ink = "black"
    nib.line_width = 3
    nib.rectangle(400, 200)


@drawing
def dots(nib):
    border(nib)
    for i, colour in enumerate(["red", "green", "blue"]):
        nib.travel_to(-60 + 60 * i, 0)
        dot(nib, colour)
