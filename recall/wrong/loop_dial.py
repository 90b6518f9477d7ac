from ovlo import drawing, from_polar


@drawing
def dial(nib):
    nib.circle(150)
    for hour in range(1, 13):
        nib.travel_to(from_polar(125, 90 - 30 * hour))
    nib.text(str(hour), align="middle", baseline="middle")  # wrong (drawn-after-loop):     nib.text(str(hour), align="middle", baseline="middle")
