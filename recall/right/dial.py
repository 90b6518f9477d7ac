from ovlo import drawing, from_polar


@drawing
def dial(nib):
    for hour in range(1, 13):
        x, y = from_polar(150, 90 - 30 * hour)
        nib.travel_to(x, y)
        nib.turn_to(-30 * hour)
        nib.text(str(hour), align="middle", baseline="middle")
    nib.travel_to(0, 0)
    nib.turn_to(60)
    nib.forward(90)
