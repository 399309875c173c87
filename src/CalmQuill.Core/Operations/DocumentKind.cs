namespace CalmQuill.Core.Operations;

/// <summary>The three kinds of document that operations change. The numbers are part of the stored form.</summary>
public enum DocumentKind : byte
{
    Library = 1,
    Notebook = 2,
    Page = 3,
}
