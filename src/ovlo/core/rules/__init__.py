"""The rules of a check, one function each; `ovlo.core.checking` knows them all."""
