from ovlo import drawing


@drawing(width=420, height=420)
def rings(nib, count: int = 11):
    step = 360 // count  # wrong (floor-division, rosette-misses-360): step = 360 / count
    for _ in range(count):
        nib.travel(60)
        nib.circle(60)
        nib.back(0)
        nib.travel(-60)
        nib.left(step)
