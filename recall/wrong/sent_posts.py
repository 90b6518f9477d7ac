from ovlo import drawing


def post(nib, x):
    nib.line_to(x, -60)  # wrong (line-to-figure): nib.travel_to(x, -60)
    nib.line_by(0, 90)
    nib.circle(6, fill="white")


@drawing(width=480, height=240)
def jetty(nib):
    nib.line_width = 3
    for k in range(7):
        post(nib, -210 + 70 * k)
