import math

from ovlo import drawing


@drawing
def roulette(nib):
    big, small, arm = 150, 47, 60
    points = []
    for i in range(0, 47 * 360 + 1, 12):
        t = math.radians(i)
        points.append(
            (
                (big - small) * math.cos(t) + arm * math.cos((big - small) / small * t),
                (big - small) * math.sin(t) - arm * math.sin((big - small) / small * t),
            )
        )
    nib.line_width = 0.5
    nib.travel_to(points[0])
    for point in points[1:]:
        nib.line_to(point)
