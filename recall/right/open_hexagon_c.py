from ovlo import drawing


@drawing
def c_shape(nib):
    nib.line_width = 10
    nib.travel_to(60, 90)
    nib.turn_to(150)
    for _ in range(5):
        nib.forward(80)
        nib.left(60)
