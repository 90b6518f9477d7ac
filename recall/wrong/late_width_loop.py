from ovlo import drawing


@drawing
def tree_rings(nib):
    for year in range(1, 9):
        #+ nib.line_width = year / 2
        nib.circle(12 * year)
        nib.line_width = year / 2  # wrong (unused-style): nib.pause(1)
