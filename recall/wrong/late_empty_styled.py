from ovlo import drawing


@drawing
def waves(nib):
    nib.travel_to(-200, 0)
    with nib.styled(ink="teal", line_width=4):  # wrong (unused-style): if True:
        nib.turn_to(30)
    for _ in range(5):
        nib.arc_right(40, 60)
        nib.arc_left(40, 60)
