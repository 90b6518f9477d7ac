from ovlo import drawing, from_polar


@drawing
def cog(nib):
    with nib.area("silver"):
        nib.travel_to(120, 0)
        for i in range(24):
            radius = 120 if i % 2 else 95
            nib.line_to(from_polar(radius, 15 * i))
            nib.line_to(from_polar(radius, 15 * (i + 1)))
        nib.line_to_start()
    nib.circle(30, fill="white")
