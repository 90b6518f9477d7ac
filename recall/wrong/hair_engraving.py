from ovlo import drawing


@drawing
def clouds(nib):
    nib.line_width = 0.01  # wrong (hairline): nib.line_width = 0.6
    for y in range(-80, 81, 4):
        nib.travel_to(-150 + abs(y), y)
        nib.line_to(150 - abs(y), y)
