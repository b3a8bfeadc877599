# frozen_string_literal: true

module Roost
  module Web
    # Marks by hand, question by question.
    class Marking < TeacherApp
      LABELS = { "0" => "0", "1/4" => "¼", "1/2" => "½", "3/4" => "¾", "1" => "1" }.freeze

      get "/:id/questions/:slide/marks" do |id, slide_id|
        row, slide = asked(id, slide_id)
        page("results/marking", title: "Mark #{slide.name}", **about(row, slide), undo: nil)
      end

      # Marks for those who are named, the same for all, or for each their own, as when they are put back.
      post "/:id/questions/:slide/marks" do |id, slide_id|
        row, slide = asked(id, slide_id)
        before = granted(Operations::MarkByHand.new.call(account_id, row.id, slide.id, marks))
        next page("results/marking", title: "Mark #{slide.name}", **about(row, slide), undo: before) unless params["undone"]

        redirect marking_path(row, slide), 303
      end

      post "/:id/questions/:slide/marks/released" do |id, slide_id|
        row, slide = asked(id, slide_id)
        Operations::MarkByHand.new.release(account_id, row.id, slide.id, params["released"] == "1")
        redirect marking_path(row, slide), 303
      end

      helpers do
        def asked(id, slide_id)
          row = own_session(id)
          slide = Store::Sessions.new.lesson_of(row).slide(slide_id)
          slide&.prompt ? [row, slide] : not_found
        end

        # @return [Hash{Integer=>String}] seat id to mark; without one that was pressed, none is taken back
        def marks
          given = params["marks"] if params["marks"].is_a?(Hash)
          given ||= Array(params["seats"]).to_h { |seat| [seat, text("mark") || "none"] }
          given.to_h { |seat, mark| [whole(seat), mark.to_s] }.except(nil)
        end

        def nameless? = params["names"] == "0"

        def mixed? = params["order"] == "1"

        def marking_path(row, slide, **changed)
          query = { "names" => ("0" if nameless?), "order" => ("1" if mixed?), **changed }.compact
          "/results/#{row.id}/questions/#{slide.id}/marks#{"?#{URI.encode_www_form(query)}" if query.any?}"
        end

        def about(row, slide)
          record = Store::Records.new.of(row)
          marking = Core::Analysis::Marking.new(record, slide)
          { row: row, slide: slide, results: Core::Analysis::Results.new(record),
            groups: marking.groups(order: (row.id if mixed?)),
            released: Store::HandMarks.new.released(row.id).include?(slide.id) }
        end
      end
    end
  end
end
