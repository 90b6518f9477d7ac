from ovlo import drawing

COLOURS = ["crimson", "gold", "seagreen", "royalblue"]


@drawing
def bunting(nib, flags=8):
    nib.travel_to(-240, 60)
    for flag in range(flags):
        with nib.area(COLOURS[0]):  # wrong (unused-items): with nib.area(COLOURS[flag % 4]):
            nib.line_by(50, 0)
            nib.line_by(-25, -50)
            nib.line_to_start()
        nib.travel_by(60, 0)
