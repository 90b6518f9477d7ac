from ovlo import Sheet

sheet = Sheet()
nib = sheet.new_nib()
nib.forward(40)
nib.lift  # wrong (not-called): nib.lift()
nib.forward(40)
nib.lower()
nib.forward(40)
