from ovlo import drawing


@drawing
def swell(nib, waves: int = 6):
    nib.travel_to(-240, 0)
    nib.left(60)
    for _ in range(waves):
        nib.arc_right(23, 120)
        nib.arc_left(23, 120)
