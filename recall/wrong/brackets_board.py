from ovlo import drawing


@drawing
def board(nib, rows=6):
    for row in range(rows):
        for column in range(rows):
            nib.travel_to(50 * column - 150, 50 * row - 150)
            is_dark = row + column % 2 == 0  # wrong (missing-brackets): is_dark = (row + column) % 2 == 0
            nib.rectangle(50, 50, anchor="corner", fill="teal" if is_dark else "wheat")
