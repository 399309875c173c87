using System.Globalization;
using System.Runtime.CompilerServices;
using System.Text;
using System.Text.Json;

namespace CalmQuill.Core.Words;

/// <summary>
/// A sentence for a person, which the interface says in the person's language: a pattern in English with numbered places, and what stands in them. It is written
/// as an interpolated string, <c>$"A name has at most {MostCharacters} characters."</c>, and so are sentences without a value: what takes the words out for the
/// catalogues (<c>src/web/build/sentences.mjs</c>) goes by that sign. No other string is converted, so that none can be missing there.
/// </summary>
[InterpolatedStringHandler]
public sealed class Sentence : IEquatable<Sentence>
{
    private readonly StringBuilder pattern;
    private readonly StringBuilder english;
    private readonly List<object> values;

    public Sentence(int literalLength, int formattedCount)
    {
        pattern = new StringBuilder(literalLength + (formattedCount * 3));
        english = new StringBuilder(literalLength + (formattedCount * 8));
        values = new List<object>(formattedCount);
    }

    /// <summary>The English words with <c>{0}</c>, <c>{1}</c> … for the values: what the catalogues know it by.</summary>
    public string Pattern => pattern.ToString();

    /// <summary>What stands in the places: texts, and whole numbers as <see cref="long"/>.</summary>
    public IReadOnlyList<object> Values => values;

    /// <summary>The whole sentence in English, for logs and for whoever asks the server without the interface.</summary>
    public string English => english.ToString();

    /// <summary>
    /// The sentence as one text on its way to the interface: the English words, and in a second line what it consists of, as JSON. What is thrown to a script
    /// arrives as its message alone.
    /// </summary>
    public string Told
    {
        get
        {
            using var stream = new MemoryStream();
            using (var json = new Utf8JsonWriter(stream))
            {
                json.WriteStartObject();
                json.WriteString("pattern", Pattern);
                json.WriteStartArray("values");
                foreach (var value in values)
                {
                    if (value is long number)
                        json.WriteNumberValue(number);
                    else
                        json.WriteStringValue((string)value);
                }

                json.WriteEndArray();
                json.WriteEndObject();
            }

            return $"{English}\n{Encoding.UTF8.GetString(stream.GetBuffer(), 0, (int)stream.Length)}";
        }
    }

    /// <summary>The sentence itself, where the compiler does not see by itself that one is meant: <c>isFine ? null : Sentence.Of($"…")</c>.</summary>
    public static Sentence Of(Sentence sentence) => sentence;

    /// <summary>A sentence made elsewhere, which no catalogue knows: it is shown as it is.</summary>
    public static Sentence Foreign(string words)
    {
        Sentence sentence = new(words.Length, 0);
        sentence.english.Append(words);
        return sentence;
    }

    public void AppendLiteral(string words)
    {
        pattern.Append(words);
        english.Append(words);
    }

    public void AppendFormatted(long value, string? format = null) => Append(value, value.ToString(format, CultureInfo.InvariantCulture));

    public void AppendFormatted(int value, string? format = null) => AppendFormatted((long)value, format);

    public void AppendFormatted(string value) => Append(value, value);

    public override string ToString() => English;

    public bool Equals(Sentence? other) => other is not null && Pattern == other.Pattern && English == other.English;

    public override bool Equals(object? obj) => Equals(obj as Sentence);

    public override int GetHashCode() => HashCode.Combine(Pattern, English);

    private void Append(object value, string shown)
    {
        pattern.Append('{').Append(values.Count).Append('}');
        english.Append(shown);
        values.Add(value);
    }
}
