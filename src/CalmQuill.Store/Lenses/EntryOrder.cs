namespace CalmQuill.Store.Lenses;

/// <summary>What lists are sorted by.</summary>
public enum EntryOrder
{
    Name,
    Written,
    Created,
    Kind,
    Size,
}
