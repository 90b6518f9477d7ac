from ovlo import drawing


@drawing
def rigging(nib):
    nib.line_width = 0.05  # wrong (hairline): nib.line_width = 0.8
    for i in range(12):
        nib.travel_to(-200, -150 + 20 * i)
        nib.line_to(200, 150 - 10 * i)
