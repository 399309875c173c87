using System.Text;
using System.Text.Json;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Lenses;

/// <summary>Rules as JSON: an object with one member a term, for example <c>{"all":[{"tag":"…"},{"not":{"kind":"page"}},{"written":"this-term"}]}</c>.</summary>
public static class RuleJson
{
    public const int MostDepth = 8;
    public const int MostTerms = 100;
    public const int MostCharacters = 3_500;

    public static string Write(Rule rule)
    {
        using var stream = new MemoryStream();
        using (var json = new Utf8JsonWriter(stream))
            Write(json, rule);
        return Encoding.UTF8.GetString(stream.GetBuffer(), 0, (int)stream.Length);
    }

    /// <summary>The rule; null together with a refusal when the text is none.</summary>
    public static (Rule? Rule, Refusal? Refusal) Read(string text)
    {
        if (text.Length > MostCharacters)
            return (null, new Refusal("rule-too-long", $"This question has too many terms."));
        try
        {
            using var json = JsonDocument.Parse(text);
            var terms = 0;
            return (Read(json.RootElement, 0, ref terms), null);
        }
        catch (SentenceException problem)
        {
            return (null, new Refusal("bad-rule", problem.Sentence));
        }
        catch (Exception problem) when (problem is JsonException or FormatException or InvalidOperationException)
        {
            return (null, new Refusal("bad-rule", $"This question is not well formed."));
        }
    }

    private static void Write(Utf8JsonWriter json, Rule rule)
    {
        json.WriteStartObject();
        switch (rule)
        {
            case Rule.All all:
                WriteAll(json, "all", all.Rules);
                break;
            case Rule.Any any:
                WriteAll(json, "any", any.Rules);
                break;
            case Rule.Not not:
                json.WritePropertyName("not");
                Write(json, not.Inner);
                break;
            case Rule.Tagged tagged:
                json.WriteString("tag", tagged.Tag);
                break;
            case Rule.OfKind kind:
                json.WriteString("kind", kind.Kind.ToString().ToLowerInvariant());
                break;
            case Rule.Written written:
                json.WriteString("written", written.Span.Name);
                break;
            case Rule.Created created:
                json.WriteString("created", created.Span.Name);
                break;
            case Rule.Starred:
                json.WriteBoolean("starred", true);
                break;
            case Rule.By by:
                json.WriteString("by", by.Person);
                break;
            case Rule.Within within:
                json.WriteString("within", within.Folder);
                break;
            case Rule.Titled titled:
                json.WriteString("titled", titled.Text);
                break;
            default:
                throw new InvalidOperationException($"No JSON for {rule.GetType().Name}.");
        }

        json.WriteEndObject();
    }

    private static void WriteAll(Utf8JsonWriter json, string name, IReadOnlyList<Rule> rules)
    {
        json.WriteStartArray(name);
        foreach (var rule in rules)
            Write(json, rule);
        json.WriteEndArray();
    }

    private static Rule Read(JsonElement json, int depth, ref int terms)
    {
        if (depth > MostDepth)
            throw new SentenceException($"This question is nested too deep.");
        if (++terms > MostTerms)
            throw new SentenceException($"This question has too many terms.");
        var members = json.EnumerateObject().ToArray();
        if (members.Length != 1)
            throw new SentenceException($"Each term of a question says exactly one thing.");
        var (name, value) = (members[0].Name, members[0].Value);
        return name switch
        {
            "all" => new Rule.All(ReadAll(value, depth, ref terms)),
            "any" => new Rule.Any(ReadAll(value, depth, ref terms)),
            "not" => new Rule.Not(Read(value, depth + 1, ref terms)),
            "tag" => new Rule.Tagged(value.GetGuid()),
            "kind" => Enum.TryParse<EntryKind>(value.GetString(), ignoreCase: true, out var kind) && Enum.IsDefined(kind)
                ? new Rule.OfKind(kind)
                : throw new SentenceException($"A kind is folder, notebook, section or page."),
            "written" => new Rule.Written(ReadSpan(value)),
            "created" => new Rule.Created(ReadSpan(value)),
            "starred" => new Rule.Starred(),
            "by" => new Rule.By(value.GetGuid()),
            "within" => new Rule.Within(value.GetGuid()),
            "titled" => value.GetString() is { Length: <= 200 } text
                ? new Rule.Titled(text)
                : throw new SentenceException($"A title to look for has at most 200 characters."),
            _ => throw new SentenceException($"A question knows nothing of “{(name.Length > 40 ? name[..40] : name)}”."),
        };
    }

    private static List<Rule> ReadAll(JsonElement json, int depth, ref int terms)
    {
        var rules = new List<Rule>();
        foreach (var inner in json.EnumerateArray())
            rules.Add(Read(inner, depth + 1, ref terms));
        return rules;
    }

    private static Span ReadSpan(JsonElement value) =>
        value.GetString() is { } name && Span.IsValid(name)
            ? new Span(name)
            : throw new SentenceException($"A stretch of time is one of the named ones, or first and last day.");
}
