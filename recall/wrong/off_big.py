from ovlo import Sheet

sheet = Sheet(640, 480)
nib = sheet.new_nib()
nib.polygon(3, radius=80)
nib.polygon(6, radius=330)  # wrong (off-sheet): nib.polygon(6, radius=220)
