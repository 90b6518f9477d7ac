from ovlo import Sheet

sheet = Sheet()
nib = sheet.new_nib(-40, -120)
nib.line_width = 4
for _ in range(7):
    nib.forward(100)
    nib.left(900 / 7)  # wrong (turns-miss-360): nib.left(360 / 7)
