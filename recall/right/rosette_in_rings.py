from ovlo import drawing, ramp


@drawing(paper="black")
def rings(nib):
    for radius, colour in zip((30, 60, 90), ramp("gold", "crimson", 3), strict=True):
        nib.ink = colour
        for _ in nib.full_turn(18):
            nib.circle(radius)
            with nib.returning():
                nib.travel(radius)
                nib.circle(radius / 2)
