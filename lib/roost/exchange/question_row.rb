# frozen_string_literal: true

module Roost
  module Exchange
    # One question as a row of a sheet, both ways. What stands in the row is read through
    # the same forms as in the builder, so a sheet can bring in nothing else.
    class QuestionRow
      # One more than a question has options: the text with gaps, and twelve other words.
      OPTIONS = ("A".."M").map { |letter| "Option #{letter}" }.freeze
      # Column to what is to be put into it, for the pattern.
      EXPLAINED = {
        "Question" => "The question. A row that begins with # is left out, like this one.",
        "Kind" => "#{Core::Kinds.all.map(&:kind).join(", ")}; empty means #{Core::Kinds.all.first.kind}",
        **OPTIONS.first(6).to_h { |name| [name, Kinds.explained("options")] },
        "Right" => "#{Kinds.explained("right")} poll when none is right; empty when there is no key yet",
        "Time" => "Seconds, 5 to 600; empty for none", "Points" => "For a full mark, 0 to 1000; empty for 100",
        "Explanation" => "Shown with the right answer", "Hint" => "Students may look at it",
        "Subtopics" => "Commas between", "Standards" => "Codes of learning standards, commas between",
        "Bloom" => Core::Prompt::BLOOM.join(", "), "Depth" => "1 to 4 (depth of knowledge)",
        "Rules" => "Any of: practice only, may be changed, stands, teachers only. #{Kinds.explained("rules")}",
        "Text" => "More text on the slide", "Second column" => "Text of the second column",
        "Arrangement" => Core::Slide::ARRANGEMENTS.keys.join(", "), "Name" => "Name in lists, if not the question",
        "Notes" => "For you only", "Media" => "Filled in by the export: files that are kept here already"
      }.freeze
      MISSING = "the question itself is missing"
      DIFFICULTY = /\Adifficulty (?<value>-?\d+(?:\.\d+)?)\z/
      # For a poll that has a key all the same.
      COMMON_RULES = { "opinion" => { "poll" => "1" }, "practice only" => { "practice" => "1" },
                       "closing question" => { "closing" => "1" },
                       "may be changed" => { "may_change" => "yes" }, "stands" => { "may_change" => "no" } }.freeze
      FIELDS = { "Question" => "heading", "Text" => "text", "Second column" => "aside", "Name" => "title",
                 "Notes" => "notes" }.freeze
      MEDIUM = /\A(?<what>picture|option [A-M](?: right)?|sound|spoken|video|web) (?<file>\S+)(?: (?<rest>.*))?\z/

      # @param media [#call] file name to whether it is kept here
      def initialize(media)
        @media = media
      end

      # @param slide [Core::Slide] with a prompt
      # @return [Hash{String=>String}] column to cell
      def cells(slide)
        prompt = slide.prompt
        row = Kinds.sheet_row(prompt.kind).new(prompt)
        FIELDS.transform_values { |field| slide.public_send(field) }.merge(
          "Kind" => prompt.kind, **OPTIONS.zip(row.options).to_h.compact, "Right" => right(row, prompt),
          "Time" => prompt.time_limit.to_s, "Points" => prompt.settings["points"].to_s, "Explanation" => prompt.explanation,
          "Hint" => prompt.hint, "Subtopics" => prompt.subtopics.join(", "), "Standards" => prompt.standards.join(", "),
          "Bloom" => prompt.settings["bloom"], "Depth" => prompt.settings["depth"].to_s, "Rules" => rules(row, slide).join(", "),
          "Arrangement" => slide.arrangement, "Media" => media_lines(slide).join("\n")
        )
      end

      # @param cells [Hash{String=>String}] column to cell
      # @param id [String] for the slide
      # @return [Core::Reading] of a slide
      def slide(cells, id)
        name = cells["Kind"].to_s.strip.downcase
        kind = name.empty? ? Core::Kinds.all.first : Core::Kinds.named(name)
        return refuse("there is no kind “#{cells["Kind"]}”") unless kind

        rules = Exchange::RowRules.read(cells["Rules"].to_s)
        prompt(kind, cells, rules, id).and_then do |prompt|
          blank = Core::Slide.new(id: id, prompt: prompt, for_class: !rules.include?("teachers only"))
          blank.edited(FIELDS.to_h { |column, field| [field, cells[column].to_s] }.merge("arrangement" => cells["Arrangement"]))
               .and_then { |slide| with_media(slide, cells["Media"].to_s) }
               .and_then { |slide| slide.problems.include?(MISSING) ? refuse("it has no question") : Core::Reading.ok(slide) }
        end
      end

      private

      def refuse(reason) = Core::Reading.refused(reason)

      def said?(prompt, form)
        form.all? do |name, value|
          name == "may_change" ? prompt.may_change == Core::Prompt::MAY_CHANGE[value] : prompt.settings[name] == true
        end
      end

      def rules(row, slide)
        prompt = slide.prompt
        rules = row.rules + COMMON_RULES.filter_map { |name, form| name if said?(prompt, form) }
        rules -= ["opinion"] unless prompt.keyed?
        rules << "difficulty #{prompt.settings["difficulty"]}" if prompt.settings["difficulty"]
        rules << "teachers only" unless slide.for_class
        rules
      end

      def right(row, prompt) = prompt.settings["poll"] && !prompt.keyed? ? "poll" : row.right

      def prompt(kind, cells, rules, id)
        options = OPTIONS.map { |name| cells[name].to_s.strip }
        common = { "time_limit" => cells["Time"], "points" => cells["Points"], "explanation" => cells["Explanation"].to_s,
                   "hint" => cells["Hint"].to_s, "subtopics" => cells["Subtopics"].to_s, "standards" => cells["Standards"].to_s,
                   "bloom" => cells["Bloom"].to_s.strip.downcase, "depth" => cells["Depth"].to_s.strip,
                   "poll" => cells["Right"].to_s.strip.casecmp?("poll") ? "1" : "0" }
        COMMON_RULES.each { |name, form| common.merge!(form) if rules.include?(name) }
        right = common["poll"] == "1" ? "" : cells["Right"].to_s
        Kinds.sheet_row(kind.kind).read("p#{id}", kind, options: options, right: right, rules: rules, common: common)
             .map { |read| rated(read, rules) }
      end

      # How hard it is, which simulated students go by.
      def rated(prompt, rules)
        found = rules.match(DIFFICULTY) or return prompt

        prompt.class.new(id: prompt.id, settings: prompt.settings.merge("difficulty" => found[:value].to_f.clamp(-6.0, 6.0)))
      end

      def media_lines(slide)
        lines = slide.pictures.map { |picture| picture_line("picture", picture) }
        lines += Kinds.sheet_row(slide.prompt.kind).new(slide.prompt).pictures.map do |letter, picture|
          picture_line("option #{letter}", picture)
        end
        %i[sound spoken].each { |name| (clip = slide.public_send(name)) && (lines << "#{name} #{clip.file}") }
        lines << video_line(slide.video) if slide.video
        lines << "web #{slide.web}" unless slide.web.empty?
        lines
      end

      def picture_line(what, picture)
        ["#{what} #{picture.file}", "#{picture.width}x#{picture.height}", picture.alt.gsub(/\s+/, " ")].reject(&:empty?).join(" ")
      end

      def video_line(clip) = ["video #{clip.file}", clip.captions || "-", clip.from || 0, clip.to].compact.join(" ")

      def with_media(slide, text)
        text.lines.map(&:strip).reject(&:empty?).reduce(Core::Reading.ok(slide)) do |so_far, line|
          found = line.match(MEDIUM)
          so_far.and_then do |each|
            next refuse("“#{line[0, 40]}” is no medium we know") unless found
            next each.edited({ "web" => found[:file] }) if found[:what] == "web"
            next refuse("the file #{found[:file][0, 12]}… isn't kept here") unless @media.call(found[:file])

            with_medium(each, found)
          end
        end
      end

      def with_medium(slide, found)
        case found[:what]
        when "picture" then slide.picturing([picture(found)])
        when /option/ then option_picture(slide, found)
        when "video"
          captions, from, to = found[:rest].to_s.split
          clip = Core::Clip.new(file: found[:file],
                                captions: (captions if captions && captions != "-" && @media.call(captions))).freeze
          clip.playing(from == "0" ? "" : from, to).map { |playing| slide.with(video: playing) }
        else Core::Reading.ok(slide.with(found[:what].to_sym => Core::Clip.new(file: found[:file]).freeze))
        end
      end

      def option_picture(slide, found)
        id = Kinds.sheet_row(slide.prompt.kind).new(slide.prompt).slots[found[:what].delete_prefix("option ")]
        id ? slide.picturing_option(id, picture(found)) : refuse("#{found[:what]} with its picture isn't there")
      end

      def picture(found)
        size, alt = found[:rest].to_s.split(" ", 2)
        width, height = size.to_s.match(/\A(\d{1,5})x(\d{1,5})\z/)&.captures
        Core::Picture.new(file: found[:file], width: width.to_i.clamp(1, 20_000), height: height.to_i.clamp(1, 20_000),
                          alt: alt.to_s[0, Core::Picture::ALT_LIMIT]).freeze
      end
    end
  end
end
