from ovlo import drawing


@drawing(unit="mm", width=200, height=150)
def etching(nib):
    nib.line_width = 0.1
    for i in range(40):
        nib.travel_to(-80, -60 + 3 * i)
        nib.line_to(80, 60 - 3 * i)
