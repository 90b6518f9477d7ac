from ovlo import Sheet

sheet = Sheet()
nib = sheet.new_nib(-150, 60)
nib.ink = "maroon"
for length in [220, 75, 200, 75]:  # wrong (not-closed): for length in [220, 75, 220, 75]:
    nib.forward(length)
    nib.right(90)
