from ovlo import drawing


@drawing
def pulse(nib):
    nib.travel_to(-280, 0)
    for _ in range(4):
        nib.forward(40)
        for dx, dy in [(8, 15), (8, -40), (10, 90), (10, -85), (8, 20)]:
            nib.line_by(dx, dy)
        nib.forward(50)
