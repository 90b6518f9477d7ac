from ovlo import drawing


@drawing(width=800, height=600)
def plan(nib):
    for width, depth in [(4.2, 3.1), (6.5, 2.4), (5.0, 5.0)]:
        nib.rectangle(width, depth)  # wrong (tiny-picture): nib.rectangle(width * 50, depth * 50)
