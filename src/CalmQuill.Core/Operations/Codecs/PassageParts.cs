using System.Text.Json;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Operations.Codecs;

/// <summary>Letters and how they look, without their names, in both forms.</summary>
internal static class PassageParts
{
    public static void Write(ByteWriter writer, Passage passage)
    {
        writer.Text(passage.Text);
        writer.Varint((ulong)passage.Formats.Count);
        foreach (var (start, end, trait, value) in passage.Formats)
        {
            writer.Signed(start);
            writer.Signed((long)end - start);
            writer.Byte((byte)trait);
            writer.Text(value);
        }
    }

    public static Passage Read(ref ByteReader reader)
    {
        var text = reader.Text(LetterParts.MostBytes);
        var formats = new PassageFormat[reader.Count(WritingRules.MostParts, 4, "looks")];
        for (var i = 0; i < formats.Length; i++)
        {
            var start = reader.Int32();
            var end = start + (long)reader.Int32();
            if (end is < int.MinValue or > int.MaxValue)
                throw new OperationFormatException("A look of letters is out of range.");
            var trait = (Trait)reader.Byte();
            formats[i] = new PassageFormat(start, (int)end, trait, reader.Text(LetterParts.MostBytesOf(trait)));
        }

        return new Passage(text, formats);
    }

    public static void Write(Utf8JsonWriter json, Passage passage)
    {
        json.WriteString("text", passage.Text);
        json.WriteStartArray("looks");
        foreach (var (start, end, trait, value) in passage.Formats)
        {
            json.WriteStartObject();
            json.WriteNumber("from", start);
            json.WriteNumber("to", end);
            LetterParts.WriteLook(json, trait, value);
            json.WriteEndObject();
        }

        json.WriteEndArray();
    }

    public static Passage Read(JsonElement json) =>
        new(
            JsonParts.Text(json, "text"),
            [
                .. json.GetProperty("looks")
                    .EnumerateArray()
                    .Select(look => new PassageFormat(
                        look.GetProperty("from").GetInt32(),
                        look.GetProperty("to").GetInt32(),
                        LetterParts.ReadTrait(look),
                        JsonParts.Text(look, "value")
                    )),
            ]
        );
}
