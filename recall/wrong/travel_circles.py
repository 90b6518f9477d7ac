from ovlo import Sheet

sheet = Sheet(640, 480)
nib = sheet.new_nib()
for x, y in [(-200, 100), (-60, -80), (90, 120), (220, -40)]:
    nib.line_to(x, y)  # wrong (stray-line): nib.travel_to(x, y)
    nib.circle(45)
