from ovlo import drawing


@drawing
def rose(nib, count: int = 6):
    for _ in nib.full_turn(count):
        nib.polygon(5, side_length=60)
        nib.left(60)  # wrong (drawn-again): pass
