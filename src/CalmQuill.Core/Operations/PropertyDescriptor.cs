namespace CalmQuill.Core.Operations;

/// <summary>All that is to be known of a register of a library or notebook: where it belongs, how it is read, how long it may be, and what stands there at first.</summary>
/// <param name="Property">Which it is.</param>
/// <param name="InLibrary">Whether libraries have it.</param>
/// <param name="InNotebook">Whether notebooks have it.</param>
/// <param name="On">What it is said of, in words for the table in docs/operations.md.</param>
/// <param name="Text">Its text form.</param>
public abstract record PropertyDescriptor(Property Property, bool InLibrary, bool InNotebook, string On, TextRule Text)
{
    /// <summary>Whether taking it back is possible: a name can only be replaced, but for the title of a page.</summary>
    public bool MayBeEmptyIn(DocumentKind kind) => MayBeEmpty || (kind == DocumentKind.Notebook && IsTitle);

    public bool MayBeEmpty { private get; init; } = true;

    /// <summary>Whether in a notebook it is a title, which a page need not have.</summary>
    public bool IsTitle { private get; init; }

    /// <summary>The code of its refusals.</summary>
    public string Code { get; init; } = "bad-value";

    /// <summary>Where its refusals have codes of their own.</summary>
    public Func<string, Refusal?>? Refuses { get; init; }

    public bool BelongsIn(DocumentKind kind) => kind == DocumentKind.Library ? InLibrary : kind == DocumentKind.Notebook && InNotebook;

    /// <summary>Why a text may not be written; null when it may.</summary>
    public Refusal? Check(string text, DocumentKind kind) =>
        text.Length == 0 && !MayBeEmptyIn(kind) ? new Refusal(Code, Text.Check(text) ?? $"This cannot be empty.")
        : text.Length > 0 && Refuses?.Invoke(text) is { } refusal ? refusal
        : Text.Problem(text) is { } problem ? new Refusal(Code, problem)
        : null;
}

/// <inheritdoc/>
/// <typeparam name="T">What it is read as.</typeparam>
public sealed record PropertyDescriptor<T>(
    Property Property,
    bool InLibrary,
    bool InNotebook,
    string On,
    TextRule Text,
    T Otherwise,
    Func<string, T> Of
) : PropertyDescriptor(Property, InLibrary, InNotebook, On, Text)
{
    /// <summary>What a register holds; what stands at first where it is empty, or holds what this version does not understand.</summary>
    public T Read(string text) => text.Length == 0 || Text.Problem(text) is not null ? Otherwise : Of(text);
}
