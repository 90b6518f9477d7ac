from ovlo import drawing

POSTS = [(-110, -190), (-60, 260), (40, 200), (90, -280)]  # (y, x) as measured


@drawing(width=640, height=300)
def posts(nib):
    for x, y in POSTS:  # wrong (off-sheet): for y, x in POSTS:
        nib.travel_to(x, y)
        nib.circle(10)
