from ovlo import drawing


@drawing
def cloud(nib):
    nib.line_width = 0.7
    for y in range(-60, 61, 5):
        half = (60**2 - y**2) ** 0.5
        nib.travel_to(-half, y)
        nib.line_to(half, y)
