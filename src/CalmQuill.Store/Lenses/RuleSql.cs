using CalmQuill.Core.Lenses;
using CalmQuill.Core.Text;

namespace CalmQuill.Store.Lenses;

/// <summary>A rule as a condition in SQL. Says what <see cref="Rule.Matches"/> says; a test holds the two against each other.</summary>
/// <param name="context">What the rule's words mean now.</param>
internal sealed class RuleSql(RuleContext context)
{
    private readonly List<(string Name, object? Value)> parameters = [];

    /// <summary>The values that the conditions name.</summary>
    public IReadOnlyList<(string Name, object? Value)> Parameters => parameters;

    /// <summary>The columns of one kind of row.</summary>
    /// <param name="Kind">Its kind, when all rows have the same one.</param>
    /// <param name="KindColumn">The column of the kind, when they have not.</param>
    /// <param name="Id">The thing itself.</param>
    /// <param name="Folder">The folder it lies in.</param>
    /// <param name="Folded">Its title, folded.</param>
    /// <param name="Tags">Its tags with those of what it lies in.</param>
    /// <param name="CreatedAt">When it was made.</param>
    /// <param name="WrittenAt">When it was last written on.</param>
    /// <param name="Writers">A query for one row if the person of <c>{0}</c> wrote on it.</param>
    public sealed record Columns(
        EntryKind? Kind,
        string KindColumn,
        string Id,
        string Folder,
        string Folded,
        string Tags,
        string CreatedAt,
        string WrittenAt,
        string Writers
    );

    public string Condition(Rule rule, Columns columns) =>
        rule switch
        {
            Rule.All all => Join(all.Rules, " AND ", "true", columns),
            Rule.Any any => Join(any.Rules, " OR ", "false", columns),
            Rule.Not not => $"NOT ({Condition(not.Inner, columns)})",
            Rule.Tagged tagged => context.TagIds(tagged.Tag) is { Count: > 0 } ids
                ? $"{columns.Tags} && {Parameter(ids.ToArray())}"
                : "false",
            Rule.OfKind kind => columns.Kind is { } known
                ? (known == kind.Kind ? "true" : "false")
                : $"{columns.KindColumn} = {(int)kind.Kind}",
            Rule.Written written => Within(columns.WrittenAt, written.Span),
            Rule.Created created => Within(columns.CreatedAt, created.Span),
            Rule.Starred => $"EXISTS (SELECT 1 FROM stars WHERE stars.person_id = @person AND stars.target = {columns.Id})",
            Rule.By by => string.Format(System.Globalization.CultureInfo.InvariantCulture, columns.Writers, Parameter(by.Person)),
            Rule.Within within => $"{columns.Folder} = ANY({Parameter(context.FolderIds(within.Folder).ToArray())})",
            Rule.Titled titled => $"strpos({columns.Folded}, {Parameter(Folding.Fold(titled.Text))}) > 0",
            _ => throw new InvalidOperationException($"No SQL for {rule.GetType().Name}."),
        };

    private string Join(IReadOnlyList<Rule> rules, string word, string none, Columns columns) =>
        rules.Count == 0 ? none : "(" + string.Join(word, rules.Select(rule => Condition(rule, columns))) + ")";

    /// <summary>Never null, so that its opposite is right for what was never written on.</summary>
    private string Within(string column, Span span)
    {
        var bounds = context.Bounds(span);
        return bounds.Count == 0
            ? "false"
            : "("
                + string.Join(
                    " OR ",
                    bounds.Select(one => $"coalesce({column} >= {Parameter(one.From)} AND {column} < {Parameter(one.To)}, false)")
                )
                + ")";
    }

    private string Parameter(object value)
    {
        var name = "rule" + parameters.Count;
        parameters.Add((name, value));
        return "@" + name;
    }
}
