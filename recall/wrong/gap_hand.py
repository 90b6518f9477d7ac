from ovlo import drawing


@drawing
def freehand(nib):
    for x, y in [(80, 20), (110, 90), (40, 130), (-30, 80), (2, 5)]:
        nib.line_to(x, y)  # wrong (not-closed): nib.line_to(x, y) if (x, y) != (2, 5) else nib.line_to_start()
