namespace CalmQuill.Core.Lenses;

/// <summary>What a lens or filter may find.</summary>
public enum EntryKind : byte
{
    Folder = 1,
    Notebook = 2,
    Section = 3,
    Page = 4,
}
