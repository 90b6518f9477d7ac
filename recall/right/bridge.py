from ovlo import drawing


@drawing
def bridge(nib):
    nib.travel_to(-240, 0)
    nib.forward(480)
    for x in range(-240, 241, 80):
        nib.travel_to(x, 0)
        nib.line_by(40, 70)
        nib.line_by(40, -70)
        if x == 160:
            break
