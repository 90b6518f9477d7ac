from ovlo import drawing


def balloon(nib, r):
    nib.arc_left(r, 180)
    nib.arc_left(r, 180)


@drawing(paper="azure")
def balloons(nib):
    for x, y in [(-180, 40), (-60, -90), (80, 60), (200, -30)]:
        nib.line_to(x, y)  # wrong (stray-line): nib.travel_to(x, y)
        balloon(nib, 35)
