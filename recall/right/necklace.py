from ovlo import drawing, from_polar


@drawing
def necklace(nib):
    nib.circle(140)
    for i in range(24):
        nib.travel_to(from_polar(140, 15 * i))
        nib.circle(10 if i % 4 else 16, fill="lightcoral" if i % 4 else "gold")
