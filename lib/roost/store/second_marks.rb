# frozen_string_literal: true

module Roost
  module Store
    # Marks that colleagues give to answers of a session beside those of its teacher, whom she has asked to.
    class SecondMarks < Repository
      # title:: of the session; by:: whose it is
      Asked = Struct.new(:session_id, :slide_id, :title, :by, keyword_init: true)
      Marker = Struct.new(:id, :name, :marks, keyword_init: true)

      # @return [Array<Marker>] who marks a question beside its teacher, with how many answers they have marked
      def markers(session_id, slide_id)
        markers = Sequel[:second_markers]
        marks = database[:second_marks].where(session_id: session_id, slide_id: slide_id, account_id: markers[:account_id])
        rows = database[:second_markers].join(:accounts, id: markers[:account_id])
                                        .where(session_id: session_id, slide_id: slide_id).order(:name, markers[:account_id])
        many = marks.select(Sequel.function(:count).*).as(:marks)
        rows.select(Sequel[:accounts][:id], :name, many).map { |row| Marker.new(**row).freeze }
      end

      def ask(session_id, slide_id, account_id)
        database[:second_markers].insert_conflict.insert(session_id: session_id, slide_id: slide_id, account_id: account_id)
      end

      # With the marks that they have given.
      def ask_no_more(session_id, slide_id, account_id)
        database[:second_markers].where(session_id: session_id, slide_id: slide_id, account_id: account_id).delete
      end

      # @return [Array<Asked>] of what a teacher marks for others, the latest first
      def asked_of(account_id)
        sessions = Sequel[:sessions]
        rows = database[:second_markers].join(:sessions, id: :session_id).join(:accounts, id: sessions[:account_id])
                                        .where(Sequel[:second_markers][:account_id] => account_id, sessions[:deleted_at] => nil)
        rows.reverse(sessions[:created_at]).select(:session_id, :slide_id, :title, Sequel[:accounts][:name].as(:by))
            .map { |row| Asked.new(**row).freeze }
      end

      def asked?(session_id, slide_id, account_id)
        database[:second_markers].where(session_id: session_id, slide_id: slide_id, account_id: account_id).any?
      end

      # @return [Hash{Array(Integer, Integer)=>Core::Grading::HandMark}] seat and attempt to what they gave
      def of(session_id, slide_id, account_id)
        database[:second_marks].where(session_id: session_id, slide_id: slide_id, account_id: account_id)
                               .to_h { |row| [row.values_at(:seat_id, :attempt), HandMarks.read(row)] }
      end

      # @param marks [Hash{Array(Integer, Integer)=>Core::Grading::HandMark, nil}] seat and attempt to mark
      def put(session_id, slide_id, marks, account_id:)
        transaction do
          marks.each do |(seat_id, attempt), mark|
            answer = { seat_id: seat_id, slide_id: slide_id, attempt: attempt, account_id: account_id }
            next database[:second_marks].where(answer).delete unless mark

            given = HandMarks.columns(mark)
            database[:second_marks].insert_conflict(target: answer.keys, update: given)
                                   .insert(**answer, **given, session_id: session_id)
          end
        end
      end
    end
  end
end
