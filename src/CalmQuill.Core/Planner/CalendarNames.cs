namespace CalmQuill.Core.Planner;

/// <summary>The names of months and days in a language, as a calendar prints them. Our own table, since .NET without the large globalisation data knows English only.</summary>
/// <param name="Code">ISO 639-1.</param>
/// <param name="Language">The language's name for itself.</param>
/// <param name="Months">January to December.</param>
/// <param name="Days">Monday to Sunday.</param>
/// <param name="Week">The word before a week's number.</param>
public sealed record CalendarNames(string Code, string Language, string[] Months, string[] Days, string Week)
{
    public static readonly CalendarNames[] All =
    [
        Of(
            "en",
            "English",
            "January February March April May June July August September October November December",
            "Monday Tuesday Wednesday Thursday Friday Saturday Sunday",
            "Week"
        ),
        Of(
            "de",
            "Deutsch",
            "Januar Februar März April Mai Juni Juli August September Oktober November Dezember",
            "Montag Dienstag Mittwoch Donnerstag Freitag Samstag Sonntag",
            "Woche"
        ),
        Of(
            "fr",
            "Français",
            "janvier février mars avril mai juin juillet août septembre octobre novembre décembre",
            "lundi mardi mercredi jeudi vendredi samedi dimanche",
            "Semaine"
        ),
        Of(
            "es",
            "Español",
            "enero febrero marzo abril mayo junio julio agosto septiembre octubre noviembre diciembre",
            "lunes martes miércoles jueves viernes sábado domingo",
            "Semana"
        ),
        Of(
            "it",
            "Italiano",
            "gennaio febbraio marzo aprile maggio giugno luglio agosto settembre ottobre novembre dicembre",
            "lunedì martedì mercoledì giovedì venerdì sabato domenica",
            "Settimana"
        ),
        Of(
            "nl",
            "Nederlands",
            "januari februari maart april mei juni juli augustus september oktober november december",
            "maandag dinsdag woensdag donderdag vrijdag zaterdag zondag",
            "Week"
        ),
        Of(
            "pt",
            "Português",
            "janeiro fevereiro março abril maio junho julho agosto setembro outubro novembro dezembro",
            "segunda-feira terça-feira quarta-feira quinta-feira sexta-feira sábado domingo",
            "Semana"
        ),
        Of(
            "pl",
            "Polski",
            "styczeń luty marzec kwiecień maj czerwiec lipiec sierpień wrzesień październik listopad grudzień",
            "poniedziałek wtorek środa czwartek piątek sobota niedziela",
            "Tydzień"
        ),
        Of(
            "sv",
            "Svenska",
            "januari februari mars april maj juni juli augusti september oktober november december",
            "måndag tisdag onsdag torsdag fredag lördag söndag",
            "Vecka"
        ),
        Of(
            "el",
            "Ελληνικά",
            "Ιανουάριος Φεβρουάριος Μάρτιος Απρίλιος Μάιος Ιούνιος Ιούλιος Αύγουστος Σεπτέμβριος Οκτώβριος Νοέμβριος Δεκέμβριος",
            "Δευτέρα Τρίτη Τετάρτη Πέμπτη Παρασκευή Σάββατο Κυριακή",
            "Εβδομάδα"
        ),
    ];

    public static CalendarNames English => All[0];

    public static CalendarNames? Find(string code) => Array.Find(All, names => names.Code == code);

    public string Month(DateOnly day) => Months[day.Month - 1];

    public string Day(DateOnly day) => Days[MondayFirst(day.DayOfWeek)];

    /// <summary>A name cut to so many letters, for narrow columns.</summary>
    public static string Short(string name, int letters) => name.Length <= letters ? name : name[..letters];

    /// <summary>0 for Monday to 6 for Sunday.</summary>
    public static int MondayFirst(DayOfWeek day) => ((int)day + 6) % 7;

    private static CalendarNames Of(string code, string language, string months, string days, string week) =>
        new(code, language, months.Split(' '), days.Split(' '), week);
}
