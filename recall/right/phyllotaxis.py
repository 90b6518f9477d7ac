from ovlo import drawing, from_polar


@drawing
def sunflower(nib):
    for i in range(300):
        nib.travel_to(from_polar(11 * i**0.5, 137.508 * i))
        nib.circle(4, fill="goldenrod", outline=False)
