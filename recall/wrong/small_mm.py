from ovlo import drawing


@drawing(width=640, height=480)
def stamp_print(nib):
    for _ in nib.full_turn(6):
        nib.forward(2.5)  # wrong (tiny-picture): nib.forward(100)
