using System.Text.Json;
using CalmQuill.Core.Words;
using Xunit;

namespace CalmQuill.Core.Tests;

public class SentenceTests
{
    [Fact]
    public void A_sentence_knows_its_pattern_its_values_and_how_it_reads_in_English()
    {
        var name = "Rack {0}";
        var most = 5_000;
        Sentence sentence = $"“{name}” holds at most {most:N0} things.";
        Assert.Equal("“{0}” holds at most {1} things.", sentence.Pattern);
        Assert.Equal(["Rack {0}", 5_000L], sentence.Values);
        Assert.Equal("“Rack {0}” holds at most 5,000 things.", sentence.English);
    }

    [Fact]
    public void What_is_told_to_a_script_can_be_read_back_whatever_a_person_typed()
    {
        foreach (var typed in new[] { "plain", "“two”\nlines", "{\"pattern\":\"no\"}", "half a \\ and a \"" })
        {
            Sentence sentence = $"“{typed}” is there {2} times.";
            var told = sentence.Told;
            // The parts stand in the last line; JSON itself has none.
            using var parts = JsonDocument.Parse(told[(told.LastIndexOf('\n') + 1)..]);
            Assert.Equal("“{0}” is there {1} times.", parts.RootElement.GetProperty("pattern").GetString());
            Assert.Equal(typed, parts.RootElement.GetProperty("values")[0].GetString());
            Assert.Equal(2, parts.RootElement.GetProperty("values")[1].GetInt64());
        }
    }

    [Fact]
    public void Sentences_that_say_the_same_are_the_same()
    {
        static Sentence Of(int n) => $"There are {n}.";
        Assert.Equal(Of(3), Of(3));
        Assert.NotEqual(Of(3), Of(4));
        Assert.Equal(Of(3).GetHashCode(), Of(3).GetHashCode());
        // A foreign sentence is in no catalogue, even where it reads like one.
        Assert.NotEqual(Of(3), Sentence.Foreign("There are 3."));
        Assert.Empty(Sentence.Foreign("There are 3.").Pattern);
    }

    [Fact]
    public void What_is_thrown_reads_as_its_sentence_where_nothing_but_the_message_is_asked_for()
    {
        Exception thrown = new SentenceException($"Sub-pages go two levels deep.");
        Assert.IsAssignableFrom<InvalidOperationException>(thrown);
        Assert.Equal("Sub-pages go two levels deep.", thrown.Message);
    }
}
