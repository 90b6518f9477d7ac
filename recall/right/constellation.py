from ovlo import drawing

STARS = [(-200, 80), (-120, 20), (-20, 60), (60, -30), (170, -10), (150, 120)]


@drawing(paper="midnightblue")
def the_great_kite(nib):
    nib.ink = "lightsteelblue"
    nib.line_width = 1
    nib.travel_to(STARS[0])
    for star in STARS[1:]:
        nib.line_to(star)
    for star in STARS:
        nib.travel_to(star)
        nib.star(5, 10, inner_radius=4, fill="white")
