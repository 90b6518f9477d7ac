from ovlo import drawing


def sail(nib, height):
    with nib.area("white"):
        nib.line_by(0, height)
        nib.line_by(height / 2, -height)
        nib.line_to_start()


@drawing(paper="lightblue")
def regatta(nib):
    for x in (-200, 0, 200):
        nib.travel_to(x, 0)
        sail(nib, 100)
    nib.ink = "navy"  # wrong (unused-style): nib.pause(1)
    nib.line_width = 5  # wrong (unused-style): nib.pause(1)
