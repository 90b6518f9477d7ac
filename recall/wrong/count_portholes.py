from ovlo import drawing


@drawing(width=320, height=320)
def wheel(nib, parts=12):
    for _ in nib.full_turn(parts):
        nib.forward(120)
        nib.back(120)
    for _ in nib.full_turn(10):  # wrong (other-count): for _ in nib.full_turn(parts):
        with nib.returning():
            nib.left(180 / parts)
            nib.travel(100)
            nib.circle(10, fill="white")
