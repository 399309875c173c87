namespace CalmQuill.Core.Library;

/// <summary>What stands in the tree of a library. The numbers are part of the stored form.</summary>
public enum NodeKind : byte
{
    Folder = 1,
    Notebook = 2,
}
