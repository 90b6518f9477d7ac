from ovlo import drawing


@drawing
def kite(nib):
    with nib.area("tomato"):
        for side, turn in [(80, 75), (80, 120), (120, 45), (120, 120)]:
            nib.forward(side)
            nib.left(turn)
        nib.line_to_start()
    nib.turn_to(270)
    for i in range(25):
        nib.forward(6)
        nib.left(20 if i % 10 < 5 else -20)
