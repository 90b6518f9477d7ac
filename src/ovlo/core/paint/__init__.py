"""A trail as marks: outlines, their order, regions, measures, stretches."""
