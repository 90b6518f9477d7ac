from ovlo import drawing


@drawing
def umbrella(nib):
    nib.travel_to(150, 0)
    nib.turn_to(90)
    with nib.area("crimson"):
        nib.arc_left(150, 180)
        nib.turn_to(90)
        for _ in range(5):
            nib.arc_right(30, 180)
            nib.left(180)
    nib.travel_to(0, 0)
    nib.turn_to(270)
    nib.forward(120)
    nib.arc_left(20, 180)
