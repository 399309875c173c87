using System.Globalization;
using CalmQuill.Core.History;

namespace CalmQuill.Core.Browser;

/// <summary>A bar of time as it is handed to script.</summary>
internal static class ChartJson
{
    public static string Text(Chart chart, int length)
    {
        var people = chart.People;
        var places = people.Select((person, i) => (person, i)).ToDictionary(one => one.person, one => one.i);
        return Json.Text(json =>
        {
            json.WriteStartObject();
            json.WriteNumber("length", length);
            Json.Ids(json, "people", people);
            json.WritePropertyName("sittings");
            Json.List(
                json,
                chart.Sittings,
                (json, sitting) =>
                    json.WriteRawValue(
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"[{sitting.From},{sitting.To},{sitting.Left:0.#####},{sitting.Right:0.#####}]"
                        )
                    )
            );
            json.WritePropertyName("strokes");
            Json.List(
                json,
                chart.Strokes,
                (json, stroke) =>
                    json.WriteRawValue(
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"[{stroke.Column},{places[stroke.Person]},{(int)stroke.Deed},{stroke.Things}]"
                        )
                    )
            );
            json.WriteEndObject();
        });
    }
}
