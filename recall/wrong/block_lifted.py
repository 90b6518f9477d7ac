from ovlo import Sheet

sheet = Sheet()
nib = sheet.new_nib()
nib.forward(50)
nib.lifted()  # wrong (not-entered): nib.left(60)
nib.forward(30)
nib.circle(10)
