from ovlo import drawing, from_polar


@drawing
def envelope(nib):
    nib.line_width = 0.5
    for i in range(90):
        nib.travel_to(from_polar(180, 4 * i))
        nib.line_to(from_polar(180, 8 * i))
