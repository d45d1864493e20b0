// Package phrase is what published pages say of their own accord, in the language of the site: all else on
// them was written by its people. The translations are from memory and common practice; a language that isn't
// here gets English.
package phrase

import (
	"fmt"
	"strings"

	"golang.org/x/text/language"
)

// Key is a phrase.
type Key int

// The phrases; those with something to be filled in say what.
const (
	Required Key = iota // behind a label
	Choose
	OnlyIf   // the label of another field, and its value
	Next     // of steps
	Previous // of steps
	Yes
	FillIn
	Tick
	ChooseOne
	ChooseThere
	Email
	Number
	Date
	Time
	Short // characters
	Long  // characters
	Least // a number
	Most  // a number
	Early // a date or a time
	Late  // a date or a time
	Digits
	Letters
	LettersDigits
	OneProblem
	Problems // how many
	NotSent
	AnotherLook
	Thanks
	Arrived
	BackToPage
	TooMany
	Wait
	CopySubject // the site
	CopyFoot
	count
)

// languages are those that there are, the one first that others fall back to.
var languages = []language.Tag{
	language.MustParse("en"),
	language.MustParse("de"),
	language.MustParse("fr"),
	language.MustParse("es"),
	language.MustParse("it"),
	language.MustParse("nl"),
	language.MustParse("sv"),
	language.MustParse("da"),
	language.MustParse("nb"),
	language.MustParse("pl"),
}

var matcher = language.NewMatcher(languages)

// Book has the phrases of a language.
type Book [count]string

// In gives those of a language by its tag (BCP 47), of the nearest that there is.
func In(tag string) *Book {
	_, i, _ := matcher.Match(language.Make(tag))
	return &books[i]
}

// Say gives a phrase with what is to be filled in.
func (b *Book) Say(k Key, with ...string) string {
	if len(with) == 0 {
		return b[k]
	}
	args := make([]any, strings.Count(b[k], "%s")) // as many as the phrase has room for
	for i := range args {
		args[i] = with[min(i, len(with)-1)]
	}
	return fmt.Sprintf(b[k], args...)
}

var books = [...]Book{
	{ // en
		Required:      " (required)",
		Choose:        "Choose",
		OnlyIf:        "Only if %s: %s",
		Next:          "Next",
		Previous:      "Back",
		Yes:           "Yes",
		FillIn:        "Fill this in.",
		Tick:          "Tick this to send the form.",
		ChooseOne:     "Choose one.",
		ChooseThere:   "Choose one of those that are there.",
		Email:         "Write an address such as somebody@example.org.",
		Number:        "Write a number.",
		Date:          "Write a date as year, month and day: 2026-12-31.",
		Time:          "Write a time such as 09:30.",
		Short:         "Write at least %s characters.",
		Long:          "Write %s characters at most.",
		Least:         "It can’t be less than %s.",
		Most:          "It can’t be more than %s.",
		Early:         "It can’t be before %s.",
		Late:          "It can’t be after %s.",
		Digits:        "Write digits alone.",
		Letters:       "Write letters alone.",
		LettersDigits: "Write letters and digits alone.",
		OneProblem:    "One field needs another look.",
		Problems:      "%s fields need another look.",
		NotSent:       "Nothing was sent yet, and what you wrote is still there.",
		AnotherLook:   "Another look",
		Thanks:        "Thank you",
		Arrived:       "What you wrote has arrived.",
		BackToPage:    "Back to the page",
		TooMany:       "Too many messages at once",
		Wait:          "Wait a minute and send it again; nothing you wrote is lost if you go back.",
		CopySubject:   "What you sent to %s",
		CopyFoot:      "You get this because somebody entered this address in a form. If it wasn’t you, there is nothing to do.",
	},
	{ // de
		Required:      " (erforderlich)",
		Choose:        "Bitte wählen",
		OnlyIf:        "Nur wenn %s: %s",
		Next:          "Weiter",
		Previous:      "Zurück",
		Yes:           "Ja",
		FillIn:        "Bitte ausfüllen.",
		Tick:          "Bitte ankreuzen, um das Formular zu senden.",
		ChooseOne:     "Bitte eines auswählen.",
		ChooseThere:   "Bitte eine der vorhandenen Möglichkeiten auswählen.",
		Email:         "Bitte eine Adresse wie jemand@example.org angeben.",
		Number:        "Bitte eine Zahl angeben.",
		Date:          "Bitte ein Datum als Jahr, Monat und Tag angeben: 2026-12-31.",
		Time:          "Bitte eine Uhrzeit wie 09:30 angeben.",
		Short:         "Bitte mindestens %s Zeichen schreiben.",
		Long:          "Bitte höchstens %s Zeichen schreiben.",
		Least:         "Der Wert darf nicht kleiner als %s sein.",
		Most:          "Der Wert darf nicht größer als %s sein.",
		Early:         "Das darf nicht vor %s liegen.",
		Late:          "Das darf nicht nach %s liegen.",
		Digits:        "Bitte nur Ziffern schreiben.",
		Letters:       "Bitte nur Buchstaben schreiben.",
		LettersDigits: "Bitte nur Buchstaben und Ziffern schreiben.",
		OneProblem:    "Ein Feld braucht noch einen Blick.",
		Problems:      "%s Felder brauchen noch einen Blick.",
		NotSent:       "Es wurde noch nichts gesendet, und was Sie geschrieben haben, ist noch da.",
		AnotherLook:   "Noch ein Blick",
		Thanks:        "Danke",
		Arrived:       "Was Sie geschrieben haben, ist angekommen.",
		BackToPage:    "Zurück zur Seite",
		TooMany:       "Zu viele Nachrichten auf einmal",
		Wait:          "Bitte warten Sie eine Minute und senden Sie noch einmal; wenn Sie zurückgehen, ist nichts verloren.",
		CopySubject:   "Was Sie an %s gesendet haben",
		CopyFoot:      "Sie erhalten dies, weil jemand diese Adresse in ein Formular eingetragen hat. Wenn Sie das nicht waren, ist nichts zu tun.",
	},
	{ // fr
		Required:      " (obligatoire)",
		Choose:        "Choisir",
		OnlyIf:        "Seulement si %s : %s",
		Next:          "Suivant",
		Previous:      "Retour",
		Yes:           "Oui",
		FillIn:        "Remplissez ce champ.",
		Tick:          "Cochez cette case pour envoyer le formulaire.",
		ChooseOne:     "Choisissez une réponse.",
		ChooseThere:   "Choisissez parmi les réponses proposées.",
		Email:         "Écrivez une adresse comme quelquun@example.org.",
		Number:        "Écrivez un nombre.",
		Date:          "Écrivez une date avec année, mois et jour : 2026-12-31.",
		Time:          "Écrivez une heure comme 09:30.",
		Short:         "Écrivez au moins %s caractères.",
		Long:          "Écrivez au plus %s caractères.",
		Least:         "La valeur ne peut pas être inférieure à %s.",
		Most:          "La valeur ne peut pas être supérieure à %s.",
		Early:         "Cela ne peut pas être avant %s.",
		Late:          "Cela ne peut pas être après %s.",
		Digits:        "Écrivez seulement des chiffres.",
		Letters:       "Écrivez seulement des lettres.",
		LettersDigits: "Écrivez seulement des lettres et des chiffres.",
		OneProblem:    "Un champ est à revoir.",
		Problems:      "%s champs sont à revoir.",
		NotSent:       "Rien n’a encore été envoyé, et ce que vous avez écrit est toujours là.",
		AnotherLook:   "À revoir",
		Thanks:        "Merci",
		Arrived:       "Votre message est bien arrivé.",
		BackToPage:    "Retour à la page",
		TooMany:       "Trop de messages à la fois",
		Wait:          "Attendez une minute et renvoyez-le ; rien n’est perdu si vous revenez en arrière.",
		CopySubject:   "Ce que vous avez envoyé à %s",
		CopyFoot:      "Vous recevez ceci parce que quelqu’un a saisi cette adresse dans un formulaire. Si ce n’était pas vous, il n’y a rien à faire.",
	},
	{ // es
		Required:      " (obligatorio)",
		Choose:        "Elegir",
		OnlyIf:        "Solo si %s: %s",
		Next:          "Siguiente",
		Previous:      "Atrás",
		Yes:           "Sí",
		FillIn:        "Rellene este campo.",
		Tick:          "Marca esta casilla para enviar el formulario.",
		ChooseOne:     "Elige una opción.",
		ChooseThere:   "Elige una de las opciones disponibles.",
		Email:         "Escribe una dirección como alguien@example.org.",
		Number:        "Escribe un número.",
		Date:          "Escribe una fecha con año, mes y día: 2026-12-31.",
		Time:          "Escribe una hora como 09:30.",
		Short:         "Escribe al menos %s caracteres.",
		Long:          "Escribe como máximo %s caracteres.",
		Least:         "No puede ser menos de %s.",
		Most:          "No puede ser más de %s.",
		Early:         "No puede ser antes de %s.",
		Late:          "No puede ser después de %s.",
		Digits:        "Escribe solo cifras.",
		Letters:       "Escribe solo letras.",
		LettersDigits: "Escribe solo letras y cifras.",
		OneProblem:    "Hay un campo por revisar.",
		Problems:      "Hay %s campos por revisar.",
		NotSent:       "Todavía no se ha enviado nada, y lo que escribiste sigue ahí.",
		AnotherLook:   "Por revisar",
		Thanks:        "Gracias",
		Arrived:       "Tu mensaje ha llegado.",
		BackToPage:    "Volver a la página",
		TooMany:       "Demasiados mensajes a la vez",
		Wait:          "Espera un minuto y vuelve a enviarlo; si vuelves atrás no se pierde nada.",
		CopySubject:   "Lo que enviaste a %s",
		CopyFoot:      "Recibes esto porque alguien escribió esta dirección en un formulario. Si no fuiste tú, no tienes que hacer nada.",
	},
	{ // it
		Required:      " (obbligatorio)",
		Choose:        "Scegliere",
		OnlyIf:        "Solo se %s: %s",
		Next:          "Avanti",
		Previous:      "Indietro",
		Yes:           "Sì",
		FillIn:        "Compila questo campo.",
		Tick:          "Spunta questa casella per inviare il modulo.",
		ChooseOne:     "Scegli una risposta.",
		ChooseThere:   "Scegli tra le risposte proposte.",
		Email:         "Scrivi un indirizzo come qualcuno@example.org.",
		Number:        "Scrivi un numero.",
		Date:          "Scrivi una data con anno, mese e giorno: 2026-12-31.",
		Time:          "Scrivi un orario come 09:30.",
		Short:         "Scrivi almeno %s caratteri.",
		Long:          "Scrivi al massimo %s caratteri.",
		Least:         "Non può essere meno di %s.",
		Most:          "Non può essere più di %s.",
		Early:         "Non può essere prima di %s.",
		Late:          "Non può essere dopo %s.",
		Digits:        "Scrivi solo cifre.",
		Letters:       "Scrivi solo lettere.",
		LettersDigits: "Scrivi solo lettere e cifre.",
		OneProblem:    "C’è un campo da rivedere.",
		Problems:      "Ci sono %s campi da rivedere.",
		NotSent:       "Non è stato ancora inviato nulla, e quello che hai scritto è ancora qui.",
		AnotherLook:   "Da rivedere",
		Thanks:        "Grazie",
		Arrived:       "Il tuo messaggio è arrivato.",
		BackToPage:    "Torna alla pagina",
		TooMany:       "Troppi messaggi insieme",
		Wait:          "Aspetta un minuto e invialo di nuovo; se torni indietro non si perde nulla.",
		CopySubject:   "Quello che hai inviato a %s",
		CopyFoot:      "Ricevi questo perché qualcuno ha scritto questo indirizzo in un modulo. Se non sei stato tu, non devi fare nulla.",
	},
	{ // nl
		Required:      " (verplicht)",
		Choose:        "Kies",
		OnlyIf:        "Alleen als %s: %s",
		Next:          "Volgende",
		Previous:      "Terug",
		Yes:           "Ja",
		FillIn:        "Vul dit in.",
		Tick:          "Vink dit aan om het formulier te versturen.",
		ChooseOne:     "Kies er een.",
		ChooseThere:   "Kies een van de mogelijkheden.",
		Email:         "Schrijf een adres zoals iemand@example.org.",
		Number:        "Schrijf een getal.",
		Date:          "Schrijf een datum als jaar, maand en dag: 2026-12-31.",
		Time:          "Schrijf een tijd zoals 09:30.",
		Short:         "Schrijf minstens %s tekens.",
		Long:          "Schrijf hoogstens %s tekens.",
		Least:         "Het kan niet minder dan %s zijn.",
		Most:          "Het kan niet meer dan %s zijn.",
		Early:         "Het kan niet vóór %s zijn.",
		Late:          "Het kan niet na %s zijn.",
		Digits:        "Schrijf alleen cijfers.",
		Letters:       "Schrijf alleen letters.",
		LettersDigits: "Schrijf alleen letters en cijfers.",
		OneProblem:    "Eén veld moet u nog eens bekijken.",
		Problems:      "%s velden moet u nog eens bekijken.",
		NotSent:       "Er is nog niets verstuurd, en wat u schreef staat er nog.",
		AnotherLook:   "Nog eens bekijken",
		Thanks:        "Dank u wel",
		Arrived:       "Uw bericht is aangekomen.",
		BackToPage:    "Terug naar de pagina",
		TooMany:       "Te veel berichten tegelijk",
		Wait:          "Wacht een minuut en verstuur het opnieuw; als u teruggaat gaat er niets verloren.",
		CopySubject:   "Wat u aan %s stuurde",
		CopyFoot:      "U krijgt dit omdat iemand dit adres in een formulier invulde. Was u dat niet, dan hoeft u niets te doen.",
	},
	{ // sv
		Required:      " (obligatoriskt)",
		Choose:        "Välj",
		OnlyIf:        "Endast om %s: %s",
		Next:          "Nästa",
		Previous:      "Tillbaka",
		Yes:           "Ja",
		FillIn:        "Fyll i detta.",
		Tick:          "Kryssa för detta för att skicka formuläret.",
		ChooseOne:     "Välj ett alternativ.",
		ChooseThere:   "Välj ett av de alternativ som finns.",
		Email:         "Skriv en adress som till exempel namn@example.org.",
		Number:        "Skriv ett tal.",
		Date:          "Skriv ett datum med år, månad och dag: 2026-12-31.",
		Time:          "Skriv en tid som till exempel 09:30.",
		Short:         "Skriv minst %s tecken.",
		Long:          "Skriv högst %s tecken.",
		Least:         "Det kan inte vara mindre än %s.",
		Most:          "Det kan inte vara mer än %s.",
		Early:         "Det kan inte vara före %s.",
		Late:          "Det kan inte vara efter %s.",
		Digits:        "Skriv bara siffror.",
		Letters:       "Skriv bara bokstäver.",
		LettersDigits: "Skriv bara bokstäver och siffror.",
		OneProblem:    "Ett fält behöver ses över.",
		Problems:      "%s fält behöver ses över.",
		NotSent:       "Inget har skickats än, och det du skrev finns kvar.",
		AnotherLook:   "Se över",
		Thanks:        "Tack",
		Arrived:       "Det du skrev har kommit fram.",
		BackToPage:    "Tillbaka till sidan",
		TooMany:       "För många meddelanden på en gång",
		Wait:          "Vänta en minut och skicka igen; inget går förlorat om du går tillbaka.",
		CopySubject:   "Det du skickade till %s",
		CopyFoot:      "Du får detta eftersom någon skrev den här adressen i ett formulär. Var det inte du behöver du inte göra något.",
	},
	{ // da
		Required:      " (skal udfyldes)",
		Choose:        "Vælg",
		OnlyIf:        "Kun hvis %s: %s",
		Next:          "Næste",
		Previous:      "Tilbage",
		Yes:           "Ja",
		FillIn:        "Udfyld dette felt.",
		Tick:          "Sæt kryds her for at sende formularen.",
		ChooseOne:     "Vælg en mulighed.",
		ChooseThere:   "Vælg en af de viste muligheder.",
		Email:         "Skriv en adresse som for eksempel navn@example.org.",
		Number:        "Skriv et tal.",
		Date:          "Skriv en dato med år, måned og dag: 2026-12-31.",
		Time:          "Skriv et klokkeslæt som for eksempel 09:30.",
		Short:         "Skriv mindst %s tegn.",
		Long:          "Skriv højst %s tegn.",
		Least:         "Det kan ikke være mindre end %s.",
		Most:          "Det kan ikke være mere end %s.",
		Early:         "Det kan ikke være før %s.",
		Late:          "Det kan ikke være efter %s.",
		Digits:        "Skriv kun cifre.",
		Letters:       "Skriv kun bogstaver.",
		LettersDigits: "Skriv kun bogstaver og cifre.",
		OneProblem:    "Et felt skal ses igennem igen.",
		Problems:      "%s felter skal ses igennem igen.",
		NotSent:       "Intet er sendt endnu, og det du skrev er her stadig.",
		AnotherLook:   "Se igen",
		Thanks:        "Tak",
		Arrived:       "Det du skrev er kommet frem.",
		BackToPage:    "Tilbage til siden",
		TooMany:       "For mange beskeder på én gang",
		Wait:          "Vent et minut og send igen; intet går tabt, hvis du går tilbage.",
		CopySubject:   "Det du sendte til %s",
		CopyFoot:      "Du får dette, fordi nogen skrev denne adresse i en formular. Var det ikke dig, skal du ikke gøre noget.",
	},
	{ // nb
		Required:      " (må fylles ut)",
		Choose:        "Velg",
		OnlyIf:        "Bare hvis %s: %s",
		Next:          "Neste",
		Previous:      "Tilbake",
		Yes:           "Ja",
		FillIn:        "Fyll ut dette feltet.",
		Tick:          "Kryss av her for å sende skjemaet.",
		ChooseOne:     "Velg ett alternativ.",
		ChooseThere:   "Velg ett av alternativene som finnes.",
		Email:         "Skriv en adresse som for eksempel navn@example.org.",
		Number:        "Skriv et tall.",
		Date:          "Skriv en dato med år, måned og dag: 2026-12-31.",
		Time:          "Skriv et klokkeslett som for eksempel 09:30.",
		Short:         "Skriv minst %s tegn.",
		Long:          "Skriv høyst %s tegn.",
		Least:         "Det kan ikke være mindre enn %s.",
		Most:          "Det kan ikke være mer enn %s.",
		Early:         "Det kan ikke være før %s.",
		Late:          "Det kan ikke være etter %s.",
		Digits:        "Skriv bare sifre.",
		Letters:       "Skriv bare bokstaver.",
		LettersDigits: "Skriv bare bokstaver og sifre.",
		OneProblem:    "Ett felt må ses over.",
		Problems:      "%s felt må ses over.",
		NotSent:       "Ingenting er sendt ennå, og det du skrev er her fortsatt.",
		AnotherLook:   "Se over",
		Thanks:        "Takk",
		Arrived:       "Det du skrev har kommet fram.",
		BackToPage:    "Tilbake til siden",
		TooMany:       "For mange meldinger på én gang",
		Wait:          "Vent et minutt og send igjen; ingenting går tapt om du går tilbake.",
		CopySubject:   "Det du sendte til %s",
		CopyFoot:      "Du får dette fordi noen skrev denne adressen i et skjema. Var det ikke deg, trenger du ikke gjøre noe.",
	},
	{ // pl
		Required:      " (wymagane)",
		Choose:        "Wybierz",
		OnlyIf:        "Tylko jeśli %s: %s",
		Next:          "Dalej",
		Previous:      "Wstecz",
		Yes:           "Tak",
		FillIn:        "Wypełnij to pole.",
		Tick:          "Zaznacz to pole, aby wysłać formularz.",
		ChooseOne:     "Wybierz jedną odpowiedź.",
		ChooseThere:   "Wybierz jedną z podanych odpowiedzi.",
		Email:         "Wpisz adres, na przykład ktos@example.org.",
		Number:        "Wpisz liczbę.",
		Date:          "Wpisz datę: rok, miesiąc i dzień, 2026-12-31.",
		Time:          "Wpisz godzinę, na przykład 09:30.",
		Short:         "Wpisz co najmniej %s znaków.",
		Long:          "Wpisz najwyżej %s znaków.",
		Least:         "Wartość nie może być mniejsza niż %s.",
		Most:          "Wartość nie może być większa niż %s.",
		Early:         "To nie może być przed %s.",
		Late:          "To nie może być po %s.",
		Digits:        "Wpisz same cyfry.",
		Letters:       "Wpisz same litery.",
		LettersDigits: "Wpisz same litery i cyfry.",
		OneProblem:    "Jedno pole wymaga poprawy.",
		Problems:      "Pola do poprawy: %s.",
		NotSent:       "Nic jeszcze nie wysłano, a to, co wpisano, nadal tu jest.",
		AnotherLook:   "Do poprawy",
		Thanks:        "Dziękujemy",
		Arrived:       "Wiadomość dotarła.",
		BackToPage:    "Wróć na stronę",
		TooMany:       "Zbyt wiele wiadomości naraz",
		Wait:          "Poczekaj minutę i wyślij ponownie; po powrocie nic nie zginie.",
		CopySubject:   "Co wysłano do: %s",
		CopyFoot:      "Otrzymujesz to, ponieważ ktoś wpisał ten adres w formularzu. Jeśli to nie ty, nie musisz nic robić.",
	},
}
