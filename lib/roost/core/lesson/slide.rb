# frozen_string_literal: true

module Roost
  module Core
    # One screenful: heading, text (Markdown, with formulas between dollar signs), pictures,
    # sound, video or a web page, private notes for the teacher, and at most one prompt.
    # `rev` rises with every save of this slide, so that two editors never overwrite each
    # other.
    #
    # title::       what lists call it, when the heading won't do
    # aside::       text of the second column
    # arrangement:: one of ARRANGEMENTS; #layout says what comes of it
    # for_class::   false for a slide that only teachers see
    # pictures::    Array of Picture; more than one is a series to step through
    # sound::       Clip that belongs to the content
    # spoken::      Clip with the teacher's spoken instructions
    # video::       Clip with captions and the part to play
    # web::         address of an embedded page, or ""
    # minutes::     as long as the teacher means to stay on it, or nil
    # kept::        questions of other kinds that this slide asked before: kind to document, the
    #               latest last; only while it is being edited
    class Slide
      ARRANGEMENTS = { "beside" => "Words and picture side by side", "words" => "Words above, picture below",
                       "full" => "Picture fills the slide", "behind" => "Picture behind the words",
                       "columns" => "Two columns" }.freeze
      LIMITS = { title: 80, heading: 200, text: 5_000, aside: 5_000, notes: 5_000 }.freeze
      NAMES = { title: "The name", heading: "The heading", text: "The text", aside: "The second column",
                notes: "The notes" }.freeze
      BLANK = { rev: 1, title: "", heading: "", text: "", aside: "", notes: "", arrangement: "beside", for_class: true,
                pictures: [].freeze, sound: nil, spoken: nil, video: nil, web: "", minutes: nil, prompt: nil,
                kept: {}.freeze }.freeze
      MOST_PICTURES = 20
      MINUTES = (1..240)
      NO_MINUTES = "Planned minutes are a whole number from 1 to 240, or empty."
      # As how many words a picture counts (rules.md, points).
      PICTURE_WORDS = 6
      CLIPS = %i[sound spoken video].freeze

      attr_reader :id, *BLANK.keys

      def self.from_document(document)
        plain = document.transform_keys(&:to_sym).slice(*BLANK.keys)
        clips = CLIPS.to_h { |name| [name, Clip.from_document(document[name.to_s])] }
        new(**plain, **clips, id: document.fetch("id"), prompt: Kinds.from_document(document["prompt"]),
                              pictures: document.fetch("pictures", []).map { |each| Picture.from_document(each) })
      end

      # @param parts [Hash] any of BLANK's keys
      def initialize(id:, **parts)
        @id = id
        BLANK.merge(parts).each { |name, value| instance_variable_set(:"@#{name}", value) }
        raise ArgumentError, "no such part of a slide: #{parts.keys - BLANK.keys}" if (parts.keys - BLANK.keys).any?

        @pictures = @pictures.dup.freeze
        @counted = {}
        freeze
      end

      def with(id: self.id, **changes) = Slide.new(id: id, **BLANK.keys.to_h { |name| [name, public_send(name)] }, **changes)

      # The same slide under another id, with a question of its own.
      def copy(copy_id) = with(id: copy_id, rev: 1, prompt: prompt&.copy("p#{copy_id}"), kept: {}.freeze)

      # The slide with a question of another kind, or with none. What it asked before is kept beside
      # it and comes back with its kind; what all kinds have goes along.
      # @param kind [Class, nil] of Kinds.all
      # @param prompt_id [String] for a question that is new
      def asking(kind, prompt_id)
        shelf = prompt ? kept.except(prompt.kind).merge(prompt.kind => prompt.to_document) : kept
        return with(prompt: nil, kept: shelf.freeze) unless kind

        shared = (prompt || Kinds.from_document(shelf.values.last))&.shared || {}
        before = shelf[kind.kind]
        asked = if before then Kinds.from_document(prompt ? before.merge(shared) : before)
                else kind.new(id: prompt_id, settings: kind.fitting(self).merge(shared))
                end
        with(prompt: asked, kept: shelf.except(kind.kind).freeze)
      end

      # The slide as it is given to a class.
      def settled = kept.empty? ? self : with(kept: {}.freeze)

      # The picture that stands for the slide, and that is drawn upon.
      def picture = pictures.first

      # Every picture that students get with it, those of its question too.
      def all_pictures = pictures + (prompt ? prompt.pictures : [])

      # Whether there is nothing on it yet.
      def blank?
        [heading, text, aside, web].all?(&:empty?) && pictures.empty? && [sound, spoken, video, prompt].none?
      end

      # @return [String] how the slide is laid out: the arrangement, as far as there is
      #   something to arrange
      def layout
        return "columns" if arrangement == "columns"

        picture && !prompt&.uses_picture? ? arrangement : "words"
      end

      # Reads what an editor's form holds.
      #
      # @param form [Hash{String=>Object}] the texts, "arrangement", "for_class", "web",
      #   "picture_files" and "picture_alts" side by side, "picture_do" ("remove:FILE" or
      #   "earlier:FILE"), "video_from", "video_to", "minutes", and "prompt" with the settings of its kind
      # @return [Reading] of the changed slide
      def edited(form)
        read_texts(form).and_then do |texts|
          read_pictures(form).and_then do |shown|
            WebPage.read(form.fetch("web", web)).and_then do |address|
              read_video(form).and_then do |clip|
                read_minutes(form).and_then do |planned|
                  read_prompt(form["prompt"]).map do |asked|
                    with(**texts, **choices(form), pictures: shown, web: address, video: clip, minutes: planned, prompt: asked)
                  end
                end
              end
            end
          end
        end
      end

      # @param added [Array<Picture>]
      # @return [Reading] of the slide with these pictures, too
      def picturing(added)
        all = (pictures + added).uniq(&:file)
        return Reading.ok(with(pictures: all)) if all.length <= MOST_PICTURES

        Reading.refused("#{MOST_PICTURES} pictures is the most a slide can have.")
      end

      # @return [Reading] of the slide with a picture on one option of its question
      def picturing_option(option_id, picture)
        return Reading.refused("Options of this question take no pictures.") unless prompt&.pictured?

        prompt.picturing(option_id, picture).map { |pictured| with(prompt: pictured) }
      end

      # What lists, the run sheet and the results call this slide.
      def name
        [title, heading, first_words(text), first_words(picture&.alt)].find { |words| !words.empty? } || "Untitled slide"
      end

      # Words a student has to read before answering, as sessions of before pictures and formulas were counted count them
      # (Session::Rules). Where the slide is only a picture of words, those.
      def words
        @counted[:words] ||= begin
          shown = [heading, text, aside].sum { |part| Text.words(part) }
          shown = Text.words(picture&.alt) if shown.zero? && arrangement == "full"
          shown + (prompt ? prompt.to_read.sum { |part| Text.words(part) } : 0)
        end
      end

      # Words a student has to read before answering (rules.md, points): heading, text and what the question says; a picture
      # counts as six, a formula as four. Where the slide is only a picture of words, those.
      def reading_words
        @counted[:reading_words] ||= begin
          shown = [heading, text, aside].sum { |part| Text.reading_words(part) }
          of_picture = Text.words(picture&.alt) if shown.zero? && arrangement == "full"
          asked = prompt ? prompt.to_read.sum { |part| Text.reading_words(part) } : 0
          [shown + (all_pictures.length * PICTURE_WORDS), of_picture.to_i].max + asked
        end
      end

      # Whether anything on it is to be heard.
      def sound? = CLIPS.any? { |name| public_send(name) }

      # What an editor still has to do, in short phrases.
      def problems
        return [] unless prompt

        empty = [heading, text, aside, web].all?(&:empty?) && pictures.empty? && !sound?
        [*prompt.problems, ("no picture yet" if prompt.needs_picture? && pictures.empty?),
         ("the question itself is missing" if empty)].compact
      end

      # Everything on it that can be searched for, one text.
      def searchable
        [title, heading, text, aside, notes, *pictures.map(&:alt), *prompt&.searchable].reject(&:empty?).join("\n")
      end

      def to_document
        plain = BLANK.keys.to_h { |name| [name.to_s, public_send(name)] }
        clips = CLIPS.to_h { |name| [name.to_s, public_send(name)&.to_document] }
        { "id" => id, **plain, **clips, "pictures" => pictures.map(&:to_document), "prompt" => prompt&.to_document }
      end

      def ==(other) = equal?(other) || (other.is_a?(Slide) && to_document == other.to_document)

      private

      def first_words(words) = words.to_s.lines.first.to_s.gsub(/[#*_>`$]/, "").strip[0, 60]

      def read_texts(form)
        texts = LIMITS.to_h do |field, limit|
          raw = form.fetch(field.to_s, public_send(field))
          [field, Text.read(raw, limit: limit, what: NAMES[field], lines: !%i[title heading].include?(field))]
        end
        refused = texts.values.find { |reading| !reading.ok? }
        refused || Reading.ok(texts.transform_values(&:value))
      end

      def choices(form)
        { arrangement: ARRANGEMENTS.key?(form["arrangement"]) ? form["arrangement"] : arrangement,
          for_class: form.key?("for_class") ? form["for_class"] == "1" : for_class }
      end

      def read_pictures(form)
        alts = Array(form["picture_files"]).zip(Array(form["picture_alts"])).to_h
        described = pictures.map do |each|
          reading = Text.read(alts.fetch(each.file, each.alt), limit: Picture::ALT_LIMIT, what: "The picture's description")
          return reading unless reading.ok?

          each.described(reading.value)
        end
        verb, file = form["picture_do"].to_s.split(":", 2)
        place = described.index { |each| each.file == file }
        Reading.ok(place ? rearranged(described, place, verb) : described)
      end

      def rearranged(list, place, verb)
        list = list.dup
        moved = list.delete_at(place)
        verb == "earlier" ? list.insert([place - 1, 0].max, moved) : list
      end

      def read_video(form)
        video && form.key?("video_from") ? video.playing(form["video_from"], form["video_to"]) : Reading.ok(video)
      end

      def read_minutes(form)
        return Reading.ok(minutes) unless form.key?("minutes")

        typed = form["minutes"].to_s.strip
        planned = typed.match?(/\A\d{1,3}\z/) ? typed.to_i : nil
        typed.empty? || MINUTES.cover?(planned) ? Reading.ok(planned) : Reading.refused(NO_MINUTES)
      end

      def read_prompt(form)
        return Reading.ok(prompt) unless prompt && form
        return Reading.refused("The question's settings could not be read. Reload the page.") unless form.is_a?(Hash)

        prompt.edited(form)
      end
    end
  end
end
