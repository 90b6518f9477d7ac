from ovlo import drawing, from_polar


@drawing(width=300, height=300)
def dial(nib):
    nib.circle(130)
    for hour in range(1, 13):
        nib.travel_to(from_polar(120, 90 - 30 * hour))
        nib.circle(2, fill="black")
        nib.travel_to(from_polar(105, 90 - 30 * hour))
    nib.text(str(hour), align="middle")  # wrong (drawn-after-loop):     nib.text(str(hour), align="middle")
