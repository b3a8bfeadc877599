# frozen_string_literal: true

module Roost
  module Web
    # The builder: one lesson, its slides and what belongs to each; saves as the teacher goes.
    # Stands in front of Lessons and passes on what it does not know.
    class Builder < TeacherApp
      helpers LessonPages, ChosenSlides

      SLIDE_FIELDS = %w[title heading text aside notes minutes arrangement for_class web picture_files picture_alts picture_do
                        video_from video_to prompt].freeze

      get "/:id" do
        row = lesson
        Operations::NoteEditor.new.call(account_id, row.id, shown(row)&.id)
        page("lessons/builder", title: row.lesson.title, layout: "layouts/builder", **parts(row),
                                colleagues: colleagues(row.id, row.lesson.slides.map(&:id)), changed_by: nil)
      end

      # What colleagues are doing and have done; asked for every few seconds.
      get "/:id/news" do
        head = lessons.head(account_id, number("id"))
        not_found if head.nil? || head.deleted
        Operations::NoteEditor.new.call(account_id, head.id, params["slide"])
        row = lesson unless number("revision") == head.revision
        partial("lessons/news", colleagues: colleagues(head.id, head.slide_ids), changed_by: changed_by(head.id), row: row)
      end

      # The teacher's other lessons, for the list of those that slides can be moved to.
      get "/:id/others" do
        partial("lessons/other_lessons", lessons: lessons.titles(account_id).reject { |id, _| id == number("id") })
      end

      post "/:id/title" do
        change { |lesson| Core::Lesson.read_title(params["title"]).map { |title| lesson.renamed(title) } }
      end

      post "/:id/slides" do
        slide = Core::Slide.new(id: new_id)
        change(slide.id) { |lesson| lesson.adding([slide], after: params["after"]) }
      end

      post "/:id/slides/:slide" do
        edit { |slide| slide.edited(params.slice(*SLIDE_FIELDS)) }
      end

      post "/:id/slides/:slide/prompt" do
        edit { |slide| Core::Reading.ok(slide.asking(Core::Kinds.named(params["kind"]), "p#{new_id}")) }
      end

      post "/:id/slides/:slide/pictures" do
        lesson
        kept = sent_pictures.map(&:first)
        edit { |slide| slide.picturing(kept) }
      end

      # A drawing of the picture library, for the slide or for one option.
      post "/:id/slides/:slide/drawing" do
        lesson
        picture = granted(Operations::TakeDrawing.new.call(account_id, params["drawing"].to_s))
        option = params["option"].to_s
        edit { |slide| option.empty? ? slide.picturing([picture]) : slide.picturing_option(option, picture) }
      end

      # Pictures by the id of their option; an empty field is no picture.
      post "/:id/slides/:slide/option-pictures" do
        lesson
        kept = option_pictures
        halt refuse("Choose a file first.") if kept.empty?
        edit do |slide|
          kept.reduce(Core::Reading.ok(slide)) do |so_far, (id, picture)|
            so_far.and_then { |each| each.picturing_option(id, picture) }
          end
        end
      end

      post "/:id/slides/:slide/clips/:clip" do
        lesson
        file = uploads("file").first
        clip = granted(Operations::KeepClip.new.call(account_id, clip_name, file[:tempfile], file[:filename]))
        edit { |slide| Core::Reading.ok(slide.with(clip_name.to_sym => clip)) }
      end

      post "/:id/slides/:slide/clips/:clip/remove" do
        edit { |slide| Core::Reading.ok(slide.with(clip_name.to_sym => nil)) }
      end

      post "/:id/slides/:slide/captions" do
        lesson
        file = uploads("file").first
        captions = granted(Operations::KeepClip.new.captions(account_id, file[:tempfile], file[:filename]))
        edit { |slide| slide.video ? Core::Reading.ok(slide.with(video: slide.video.with(captions: captions))) : gone }
      end

      # Slides put into order by dragging: "to" counts without those that move.
      post "/:id/order" do
        change do |lesson|
          to = number("to")
          ids = lesson.slides.map(&:id) & params["moved"].to_s.split(",")
          next gone unless to && ids.any?

          moved = lesson.moving(ids, to)
          into = params["section"] && moved.sections.section(params["section"])
          Core::Reading.ok(into ? moved.with(sections: moved.sections.placing(ids, into.id)) : moved)
        end
      end

      # What is done with the chosen slides, or with the one that is shown.
      post "/:id/chosen" do
        verb, what = params["do"].to_s.split(":", 2)
        case verb
        when "up", "down" then change { |lesson| Core::Reading.ok(lesson.stepping(chosen(lesson), verb == "up" ? -1 : 1)) }
        when "copy" then copy_chosen
        when "remove" then remove_chosen
        when "section" then section_chosen(what)
        when "move" then move_chosen
        when "bank" then bank_chosen
        else halt refuse("That isn't known here. Reload the page.")
        end
      end

      post "/:id/sections/:section" do
        change do |lesson|
          section = lesson.sections.section(params["section"])
          next Core::Reading.refused("That section is gone. Reload the page.") unless section
          next Core::Reading.ok(lesson.without_section(section.id)) if params["do"] == "apart"

          way = Core::Section::WAYS.key?(params["way"]) ? params["way"] : section.way
          rules = section_rules(section)
          Core::Section.read_title(params.fetch("title", section.title)).and_then do |title|
            rules.map { |chosen| lesson.section_changed(section.id, title: title, way: way, rules: chosen) }
          end
        end
      end

      %i[undo redo].each do |way|
        post "/:id/#{way}" do
          granted(Operations::UndoLesson.new.call(account_id, number("id"), way))
          return redirect(lesson_path(number("id"), slide: params["slide"]), 303) unless htmx?

          whole_page(lesson)
        end
      end

      helpers do
        # What was chosen for a quiz, or for a round; each keeps what was chosen for the other.
        # @return [Core::Reading]
        def section_rules(section)
          case params["rules"]
          when "1" then Core::Section.read_rules(params).map { |rules| section.rules.to_h.merge(rules) }
          when "round"
            rules = Core::Section.read_round(params, section.round_rules)
            Core::Reading.ok(section.rules.to_h.merge(rules).freeze)
          else Core::Reading.ok(section.rules)
          end
        end

        def clip_name = Operations::KeepClip::KINDS.key?(params["clip"]) ? params["clip"] : not_found

        def shown(row) = row.lesson.slide(params["slide"]) || row.lesson.slides.first

        # What the page of a lesson is made of.
        def parts(row, slide = shown(row))
          { row: row, slide: slide, chosen: Array(params["ids"]), imports: Store::Imports.new.of(row.id) }
        end

        # Who else is editing, and on which slide.
        # @return [Array<Array(String, Integer, String)>] name, and the slide's number and name (nil when on none)
        def colleagues(id, slide_ids)
          sharing.editors(id, but: account_id).map do |editor|
            place = slide_ids.index(editor.slide_id)
            [editor.name, place && (place + 1), place && lessons.slide(id, editor.slide_id)&.name]
          end
        end

        # Who saved a newer version of the slide that is shown, if that was a colleague.
        def changed_by(id)
          slide = lessons.slide(id, params["slide"].to_s)
          return nil unless slide && number("rev") && slide.rev > number("rev")

          last = Store::Revisions.new.last_change(id, slide.id)
          last.author if last && last.account_id != account_id
        end

        # Changes the lesson as a whole.
        # @param slide_id [String, #call] the slide to show after it
        def change(slide_id = params["slide"], &block)
          row = granted(change_lesson(&block))
          slide_id = slide_id.call if slide_id.respond_to?(:call)
          return redirect(lesson_path(row.id, slide: slide_id), 303) unless htmx?

          columns(row, row.lesson.slide(slide_id) || row.lesson.slides.first)
        end

        # The three columns of the page, with the address that shows them again.
        def columns(row, slide)
          headers "HX-Replace-Url" => lesson_path(row.id, slide: slide&.id)
          partial("lessons/columns", **parts(row, slide))
        end

        # The whole page as it is now, its title too.
        def whole_page(row)
          slide = shown(row)
          title = partial("lessons/title", row: row, slide: slide)
          %(#{columns(row, slide)}<hx-partial hx-target="#title" hx-swap="innerMorph">#{title}</hx-partial>)
        end

        # Two changed the same: the sentence, with what is saved beside it.
        def clash(reading)
          partial("lessons/clash", reason: reading.reason, beside: Beside.write(params["slide"], reading.value.beside))
        end

        # Changes the slide in the address; answers with the parts of the page that show it.
        def edit(&block)
          beside = Beside.read(params["slide"], params["beside"])
          reading = Operations::EditSlide.new.call(account_id, number("id"), params["slide"], rev: number("rev"), beside: beside,
                                                                                              mine_stands: params["mine"] == "1",
                                                   &block)
          halt 422, clash(reading) if htmx? && reading&.value && !reading.ok?
          saved = granted(reading)
          return redirect(lesson_path(saved.head.id, slide: saved.slide.id), 303) unless htmx?

          partial("lessons/saved", head: saved.head, slide: saved.slide, place: saved.head.slide_ids.index(saved.slide.id))
        end
      end
    end
  end
end
