/** Made-up first and last names, put together at random: nobody in particular. */
export const FIRST = [
  ...['Ainhoa', 'Amadou', 'Anneli', 'Aslaug', 'Baltasar', 'Bettina', 'Caio', 'Chiara', 'Corin', 'Dagny'],
  ...['Dunja', 'Edurne', 'Eilidh', 'Emre', 'Fausta', 'Fenna', 'Gediminas', 'Giselle', 'Hanneke', 'Ilse'],
  ...['Ioana', 'Jarmila', 'Joris', 'Kaisa', 'Kofi', 'Leocadia', 'Lieselotte', 'Mafalda', 'Malick', 'Marit'],
  ...['Mirko', 'Nadir', 'Noor', 'Odette', 'Oskari', 'Palmira', 'Piotr', 'Quirina', 'Ragnhild', 'Renske'],
  ...['Rodolfo', 'Salome', 'Sibylla', 'Tadeu', 'Tilde', 'Ursa', 'Valter', 'Xoana', 'Yannick', 'Zofia'],
]
export const LAST = [
  ...['Abelha', 'Aldecoa', 'Askeland', 'Barreirinho', 'Beukeveld', 'Cardosa', 'Colombari', 'Dahlquist'],
  ...['Drummore', 'Eguren', 'Fagundas', 'Fjeldsted', 'Garridova', 'Guimbarda', 'Halloran-Pye', 'Heikkonen'],
  ...['Iturbia', 'Jankulovic', 'Kadlecova', 'Kerrigane', 'Lagerwey', 'Lourival', 'Mabunda', 'Marchessi'],
  ...['Montcalvo', 'Nakashige', 'Norrbäck', 'Olazabala', 'Paaskesen', 'Pimentela', 'Quintanal', 'Ravnsborg'],
  ...['Rebocho', 'Sarmentova', 'Sjögrund', 'Tavarela', 'Tomasiak', 'Uzcudun', 'Vaskonen', 'Vilarinha'],
  ...['Wenzelides', 'Wiersbitzky', 'Yilderan', 'Zabalegi', 'Zwartendyk'],
]

/** Where they are, the nearer the more. */
export const ZONES = [
  ...['Europe/Lisbon', 'Europe/Lisbon', 'Europe/Lisbon', 'Europe/Lisbon', 'Europe/Madrid', 'Europe/London'],
  ...['Europe/Berlin', 'Europe/Paris', 'America/Sao_Paulo', 'America/New_York', 'Atlantic/Azores'],
]

/** What brings them, in their own words. */
export const BRINGS = [
  'My voice gives out by the end of the day.',
  'I am to give a speech at a wedding and tremble at the thought.',
  'After a cold in spring the high notes have not come back.',
  'On calls people keep asking me to speak up.',
  'I have begun to teach and lose my voice every Thursday.',
  'My choir has a long concert and I would like to last it out.',
  'I read the evening news on the radio and sound tired.',
  'I would like to speak more slowly without sounding bored.',
  'I have a talk in English, which is not my language.',
  'I am hoarse after each rehearsal and do not know why.',
]

/** What the practitioner writes when turning somebody down. */
export const SORRY =
  'Thank you for asking and for telling me about yourself. I am sorry: this is not what I can offer you just now. I wish you well.'
