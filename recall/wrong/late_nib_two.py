from ovlo import drawing


@drawing(paper="lavender")
def two_pens(nib):
    fine = nib.sheet.new_nib(0, 100)
    nib.line_width = 6
    nib.polygon(5, radius=80)
    nib.line_width = 0.6  # wrong (unused-style): fine.line_width = 0.6
    for _ in fine.full_turn(12):
        fine.forward(20)
