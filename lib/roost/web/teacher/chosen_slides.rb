# frozen_string_literal: true

module Roost
  module Web
    # What the builder does with the slides that are ticked, or with the one that is shown.
    module ChosenSlides
      # The ids of the slides that are ticked, or of the one that is shown.
      def chosen(lesson)
        ticked = Array(params["ids"]).map(&:to_s)
        lesson.slides.map(&:id) & (ticked.empty? ? [params["slide"].to_s] : ticked)
      end

      def copy_chosen
        copies = {}
        change(-> { copies.values.first }) do |lesson|
          copies = chosen(lesson).to_h { |id| [id, new_id] }
          next gone if copies.empty?

          lesson.duplicating(copies)
        end
      end

      def remove_chosen
        place = 0
        reading = change_lesson do |lesson|
          ids = chosen(lesson)
          next gone if ids.empty?

          place = lesson.place(ids.first)
          Core::Reading.ok(lesson.without_slides(ids))
        end
        left = granted(reading).lesson.slides
        redirect lesson_path(number("id"), slide: left[[place, left.length - 1].min]&.id, removed: 1), 303
      end

      def section_chosen(way)
        halt refuse("That isn't a kind of section. Reload the page.") unless Core::Section::WAYS.key?(way)
        change { |lesson| chosen(lesson).any? ? Core::Reading.ok(lesson.sectioned(chosen(lesson), new_id, way)) : gone }
      end

      # Keeps the questions among the chosen slides in the bank, as copies.
      def bank_chosen
        row = lesson
        kept = granted(Operations::KeepInBank.new.call(account_id, row.id, chosen(row.lesson)))
        redirect lesson_path(row.id, slide: params["slide"], banked: kept), 303
      end

      def move_chosen
        target = number("lesson")
        moved = granted(Operations::MoveSlides.new.call(account_id, number("id"), target, chosen(lesson.lesson)))
        redirect lesson_path(target, slide: moved.first, moved: moved.length), 303
      end
    end
  end
end
