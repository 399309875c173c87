namespace CalmQuill.Core.Lenses;

/// <summary>A question to the library, built of terms with and, or, not. A closed family: the server's SQL and this evaluation know every kind.</summary>
public abstract record Rule
{
    private Rule() { }

    /// <summary>All of them hold; with none, everything does.</summary>
    public sealed record All(IReadOnlyList<Rule> Rules) : Rule;

    /// <summary>At least one holds.</summary>
    public sealed record Any(IReadOnlyList<Rule> Rules) : Rule;

    public sealed record Not(Rule Inner) : Rule;

    /// <summary>It carries the tag or one nested in it. A tag that is in the bin is on nothing.</summary>
    public sealed record Tagged(Guid Tag) : Rule;

    public sealed record OfKind(EntryKind Kind) : Rule;

    public sealed record Written(Span Span) : Rule;

    public sealed record Created(Span Span) : Rule;

    public sealed record Starred : Rule;

    /// <summary>The person wrote on it.</summary>
    public sealed record By(Guid Person) : Rule;

    /// <summary>It lies in the folder or one inside it.</summary>
    public sealed record Within(Guid Folder) : Rule;

    /// <summary>Its title holds the text, compared folded.</summary>
    public sealed record Titled(string Text) : Rule;

    public bool Matches(Entry entry, RuleContext context) =>
        this switch
        {
            All all => all.Rules.All(rule => rule.Matches(entry, context)),
            Any any => any.Rules.Any(rule => rule.Matches(entry, context)),
            Not not => !not.Inner.Matches(entry, context),
            Tagged tagged => entry.Tags.Any(context.TagIds(tagged.Tag)),
            OfKind kind => entry.Kind == kind.Kind,
            Written written => entry.WrittenAt is { } at && context.Bounds(written.Span).Any(bounds => at >= bounds.From && at < bounds.To),
            Created created => context.Bounds(created.Span).Any(bounds => entry.CreatedAt >= bounds.From && entry.CreatedAt < bounds.To),
            Starred => entry.Starred,
            By by => entry.Writers.Contains(by.Person),
            Within within => context.FolderIds(within.Folder).Contains(entry.Folder),
            Titled titled => Text.Folding.Fold(entry.Title).Contains(Text.Folding.Fold(titled.Text), StringComparison.Ordinal),
            _ => throw new InvalidOperationException($"No evaluation for {GetType().Name}."),
        };

    /// <summary>Whether anything of a kind may match, by what the rule says of kinds alone; lets a search pass over whole tables.</summary>
    public bool MayMatch(EntryKind kind) => Judge(kind) != false;

    /// <summary>True or false where the kind decides, null where it does not.</summary>
    private bool? Judge(EntryKind kind) =>
        this switch
        {
            OfKind own => own.Kind == kind,
            Not not => !not.Inner.Judge(kind),
            All all => all.Rules.Any(rule => rule.Judge(kind) == false) ? false
            : all.Rules.All(rule => rule.Judge(kind) == true) ? true
            : null,
            Any any => any.Rules.Any(rule => rule.Judge(kind) == true) ? true
            : any.Rules.All(rule => rule.Judge(kind) == false) ? false
            : null,
            _ => null,
        };
}
